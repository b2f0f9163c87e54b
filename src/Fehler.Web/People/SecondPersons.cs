using System.Collections.Concurrent;

namespace Fehler.Web.People;

/// <summary>Second persons who have just said that they stand by, entry by entry; for a few minutes.</summary>
internal sealed class SecondPersons(TimeProvider time)
{
    /// <summary>Title of the answer that asks for one; the client knows it by this.</summary>
    public const string Title = "Second person needed";

    private static readonly TimeSpan Valid = TimeSpan.FromMinutes(10);
    private readonly ConcurrentDictionary<(Guid Job, Guid Entry), (string Name, DateTimeOffset Until)> _standing = new();

    /// <summary>Somebody stands by for an entry that is about to be made.</summary>
    public void StandsBy(Guid job, Guid entry, string name)
    {
        var now = time.GetUtcNow();
        foreach (var (key, _) in _standing.Where(s => s.Value.Until < now))
        {
            _standing.TryRemove(key, out _);
        }

        _standing[(job, entry)] = (name, now + Valid);
    }

    /// <summary>Who stands by for an entry; null: nobody.</summary>
    public string? Of(Guid job, Guid entry) =>
        _standing.TryGetValue((job, entry), out var standing) && standing.Until >= time.GetUtcNow() ? standing.Name : null;
}
