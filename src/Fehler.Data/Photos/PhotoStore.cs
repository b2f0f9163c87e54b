using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>Pictures of jobs. That one was taken is an entry of the journal; the picture itself stands beside it.</summary>
public sealed class PhotoStore(FehlerDb db, JournalDoor door)
{
    private const int MostOfAJob = 60;

    /// <summary>Keeps a picture and records that it was taken.</summary>
    /// <exception cref="RefusedException">It is no picture, or one too many.</exception>
    public async Task<DoorAnswer> AddAsync(Guid job, byte[] bytes, string caption, string who, CancellationToken cancellation)
    {
        var format = PictureFormat.Of(bytes);
        if (!await db.Jobs.AnyAsync(j => j.Id == job, cancellation))
        {
            return new DoorAnswer.NoSuchJob();
        }

        if (await db.Photos.CountAsync(p => p.JobId == job, cancellation) >= MostOfAJob)
        {
            throw new RefusedException($"A job keeps {MostOfAJob} photos; say the rest in a note.");
        }

        var row = new PhotoRow
        {
            Id = Guid.CreateVersion7(),
            JobId = job,
            Type = format.Type,
            Bytes = bytes,
        };
        db.Photos.Add(row);
        await db.SaveChangesAsync(cancellation);
        var answer = await door.AppendAsync(job, new Photo(row.Id, caption.Trim()) { Who = who.Trim() }, cancellation);
        if (answer is not DoorAnswer.Recorded)
        {
            await db.Photos.Where(p => p.Id == row.Id).ExecuteDeleteAsync(cancellation);
        }

        return answer;
    }

    /// <summary>A picture; null when there is none of this id.</summary>
    public Task<PhotoRow?> FindAsync(Guid id, CancellationToken cancellation) =>
        db.Photos.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, cancellation);

    /// <summary>The pictures of a job, by id.</summary>
    public Task<Dictionary<Guid, PhotoRow>> OfAsync(Guid job, CancellationToken cancellation) =>
        db.Photos.AsNoTracking().Where(p => p.JobId == job).ToDictionaryAsync(p => p.Id, cancellation);
}
