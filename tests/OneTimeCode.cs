using System.Buffers.Binary;
using System.Globalization;
using System.Security.Cryptography;

namespace Fehler.Tests;

/// <summary>
/// What an authenticator shows: a time-based one-time password of six digits (RFC 6238 and RFC 4226, 5.3), apart from the service's own.
/// </summary>
internal static class OneTimeCode
{
    private const string Base32 = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";

    public static string Of(string key, DateTimeOffset at)
    {
        var bits = string.Concat(key.Select(c => Convert.ToString(Base32.IndexOf(c), 2).PadLeft(5, '0')));
        var secret = Enumerable.Range(0, bits.Length / 8).Select(i => Convert.ToByte(bits.Substring(8 * i, 8), 2)).ToArray();
        var step = new byte[8];
        BinaryPrimitives.WriteInt64BigEndian(step, at.ToUnixTimeSeconds() / 30);
        // The standard's hash; collisions, for which it is known, do not matter here.
#pragma warning disable CA5350
        var hash = HMACSHA1.HashData(secret, step);
#pragma warning restore CA5350
        var number = BinaryPrimitives.ReadInt32BigEndian(hash.AsSpan(hash[^1] & 15)) & int.MaxValue;
        return (number % 1_000_000).ToString("D6", CultureInfo.InvariantCulture);
    }
}
