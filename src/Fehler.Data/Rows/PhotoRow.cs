namespace Fehler.Data;

/// <summary>A picture that a journal entry shows; never changed once kept.</summary>
public sealed class PhotoRow
{
    public Guid Id { get; set; }
    public Guid JobId { get; set; }

    /// <summary>image/jpeg or image/png.</summary>
    public required string Type { get; set; }
    public required byte[] Bytes { get; set; }
}
