namespace Fehler.Data;

/// <summary>A token with which a program acts for a person.</summary>
public sealed class TokenRow
{
    public Guid Id { get; set; }
    public Guid PersonId { get; set; }
    public Person? Person { get; set; }
    public required string Name { get; set; }
    public required string KeyHash { get; set; }

    /// <summary>What it may do; never more than its person.</summary>
    public Rights Rights { get; set; }
    public DateTimeOffset CreatedAt { get; set; }
    public DateTimeOffset? Expires { get; set; }
    public DateTimeOffset? LastUsed { get; set; }
}
