using System.Globalization;
using System.Security.Claims;
using Fehler.Core.Jobs;
using Fehler.Data;

namespace Fehler.Web.People;

/// <summary>Who asks: the person of the session or of the program's token, and on which device.</summary>
internal sealed class Caller(IHttpContextAccessor accessor)
{
    public const string RightsClaim = "rights",
        SecondClaim = "needs-second",
        DeviceClaim = "device",
        DemoClaim = "demo";

    private HttpContext Context => accessor.HttpContext ?? throw new InvalidOperationException("There is nobody outside of a request.");

    private ClaimsPrincipal User => Context.User;

    /// <summary>Whether anybody is signed in.</summary>
    public bool IsSomebody => User.Identity?.IsAuthenticated == true;

    /// <summary>The person's id; none in the demo.</summary>
    public Guid Id => Guid.TryParse(User.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : Guid.Empty;

    /// <summary>The person's name.</summary>
    public string Name => User.Identity?.Name ?? "";

    /// <summary>What the person may do.</summary>
    public Rights Rights => RightsOf(User);

    /// <summary>Live tests and closing a job need a second person.</summary>
    public bool NeedsSecond => User.HasClaim(c => c.Type == SecondClaim);

    /// <summary>The demo's person, who stands for anybody.</summary>
    public bool IsDemo => User.HasClaim(c => c.Type == DemoClaim);

    /// <summary>The device or program.</summary>
    public string Device => User.FindFirstValue(DeviceClaim) ?? "";

    /// <summary>From where.</summary>
    public Whence From => new(Device, Context.Connection.RemoteIpAddress?.ToString() ?? "");

    /// <summary>
    /// The name that goes into a record: the one who is signed in, whatever was given. In the demo, where nobody is, what was given.
    /// </summary>
    public string Named(string? given) => IsDemo && !string.IsNullOrWhiteSpace(given) ? given.Trim() : Name;

    /// <summary>An entry as this caller made it.</summary>
    public JournalEntry Made(JournalEntry entry, string? second) => entry with { Who = Named(entry.Who), Second = second ?? "" };

    /// <summary>What a principal may do.</summary>
    public static Rights RightsOf(ClaimsPrincipal user) =>
        int.TryParse(user.FindFirstValue(RightsClaim), NumberStyles.None, CultureInfo.InvariantCulture, out var rights)
            ? (Rights)rights & Rights.All
            : Rights.None;

    /// <summary>A principal for a person on a device.</summary>
    public static ClaimsPrincipal Principal(string scheme, Guid id, string name, Rights rights, bool needsSecond, string device)
    {
        var identity = new ClaimsIdentity(
            [
                new Claim(ClaimTypes.NameIdentifier, id.ToString()),
                new Claim(ClaimTypes.Name, name),
                new Claim(RightsClaim, ((int)rights).ToString(CultureInfo.InvariantCulture)),
                new Claim(DeviceClaim, device),
            ],
            scheme
        );
        if (needsSecond)
        {
            identity.AddClaim(new Claim(SecondClaim, "1"));
        }

        return new ClaimsPrincipal(identity);
    }
}
