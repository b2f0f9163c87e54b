using System.Security.Cryptography;
using System.Text;
using Fehler.Data;

namespace Fehler.Web.People;

/// <summary>
/// What whoever starts the service is given on its console: the code with which the first administrator is made, so that nobody else on the
/// network can be first; in the demo a token for programs.
/// </summary>
internal sealed class FirstStart(AccessSettings settings, ILogger<FirstStart> log)
{
    private const string Letters = "ABCDEFGHJKMNPQRSTUVWXYZ23456789";

    /// <summary>The code of the first administrator.</summary>
    internal string Code { get; } = string.Join('-', Enumerable.Range(0, 3).Select(_ => RandomNumberGenerator.GetString(Letters, 4)));
    private readonly string _demoToken = $"fehler_{Secrets.New()}";

    /// <summary>Whether a code is the one that was shown.</summary>
    public bool IsCode(string given) => Same(given.Trim().ToUpperInvariant(), Code);

    /// <summary>Whether a key is the demo's.</summary>
    public bool IsDemoToken(string key) => Same(key, _demoToken);

    /// <summary>Says on the console what is needed to begin. Codes and tokens go to the console alone, never into a log.</summary>
    public async Task TellAsync(PeopleStore people, CancellationToken cancellation)
    {
        if (settings.IsDemo)
        {
            await Console.Out.WriteLineAsync(
                $"fehler: demo: whoever is on this machine is signed in, with every right. A program: Authorization: Bearer {_demoToken}"
            );
        }
        else if (!await people.AnyAsync(cancellation))
        {
            log.LogInformation("Nobody can sign in yet: the first administrator is made in the browser with the code on the console");
            await Console.Out.WriteLineAsync(
                $"fehler: nobody can sign in yet. The first administrator is made in the browser with the code {Code}"
            );
        }
    }

    private static bool Same(string given, string right) =>
        CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(given), Encoding.UTF8.GetBytes(right));
}
