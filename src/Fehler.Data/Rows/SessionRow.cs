namespace Fehler.Data;

/// <summary>A session of a browser: the cookie holds a key whose hash is here, and nothing else.</summary>
public sealed class SessionRow
{
    public required string KeyHash { get; set; }
    public Guid PersonId { get; set; }
    public Person? Person { get; set; }

    /// <summary>What it runs on: a trusted device's name, or what the browser says of itself.</summary>
    public required string Device { get; set; }
    public DateTimeOffset BeganAt { get; set; }
    public DateTimeOffset LastSeen { get; set; }
    public DateTimeOffset Expires { get; set; }
}
