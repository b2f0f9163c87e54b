using Fehler.Core.Circuits;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>
/// Pictures of jobs. That one was taken is an entry of the journal; the picture itself stands beside it, and is there before its entry.
/// </summary>
public sealed class PhotoStore(FehlerDb db, Turns turns)
{
    private const int MostOfAJob = 60;

    /// <summary>Keeps a picture under the id that its entry will name; the same one again changes nothing.</summary>
    /// <returns>Whether there is such a job.</returns>
    /// <exception cref="RefusedException">It is no picture, one too many, or another has this id.</exception>
    public Task<bool> KeepAsync(Guid job, Guid picture, byte[] bytes, CancellationToken cancellation)
    {
        var type = PictureFormat.Of(bytes).Type;
        return turns.InTurnAsync($"photos {job}", () => KeepInTurnAsync(job, picture, type, bytes, cancellation), cancellation);
    }

    private async Task<bool> KeepInTurnAsync(Guid job, Guid picture, string type, byte[] bytes, CancellationToken cancellation)
    {
        if (!await db.Jobs.AnyAsync(j => j.Id == job, cancellation))
        {
            return false;
        }

        if (await FindAsync(picture, cancellation) is { } known)
        {
            return known.JobId == job && known.Bytes.AsSpan().SequenceEqual(bytes)
                ? true
                : throw new RefusedException("Another photo has this id already; give every photo an id of its own.");
        }

        if (await db.Photos.CountAsync(p => p.JobId == job, cancellation) >= MostOfAJob)
        {
            throw new RefusedException($"A job keeps {MostOfAJob} photos; say the rest in a note.");
        }

        db.Photos.Add(
            new PhotoRow
            {
                Id = picture,
                JobId = job,
                Type = type,
                Bytes = bytes,
            }
        );
        await db.SaveChangesAsync(cancellation);
        return true;
    }

    /// <summary>A picture; null when there is none of this id.</summary>
    public Task<PhotoRow?> FindAsync(Guid id, CancellationToken cancellation) =>
        db.Photos.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, cancellation);

    /// <summary>The pictures of a job, by id.</summary>
    public Task<Dictionary<Guid, PhotoRow>> OfAsync(Guid job, CancellationToken cancellation) =>
        db.Photos.AsNoTracking().Where(p => p.JobId == job).ToDictionaryAsync(p => p.Id, cancellation);
}
