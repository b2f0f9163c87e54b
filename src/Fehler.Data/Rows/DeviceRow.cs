namespace Fehler.Data;

/// <summary>A tablet on which people may sign in with a PIN.</summary>
public sealed class DeviceRow
{
    public Guid Id { get; set; }
    public required string Name { get; set; }
    public required string KeyHash { get; set; }
    public required string TrustedBy { get; set; }
    public DateTimeOffset TrustedAt { get; set; }
}
