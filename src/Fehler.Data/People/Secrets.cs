using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;

namespace Fehler.Data;

/// <summary>Keys that are long enough not to be guessed, and their hashes, which are all that is kept of them.</summary>
public static class Secrets
{
    private const int Bytes = 32;

    /// <summary>A new key of 256 random bits, in letters that an address can hold.</summary>
    public static string New() => Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(Bytes));

    /// <summary>What is kept of a key. A key is random: a plain hash cannot be turned back.</summary>
    public static string Hash(string key) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(key)));
}
