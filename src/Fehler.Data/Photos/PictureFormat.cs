using System.Buffers.Binary;
using Fehler.Core.Circuits;

namespace Fehler.Data;

/// <summary>What a picture's own head says of it (JPEG: ITU-T T.81, PNG: ISO/IEC 15948).</summary>
/// <param name="Type">image/jpeg or image/png.</param>
/// <param name="Width">Pixels.</param>
/// <param name="Height">Pixels.</param>
public sealed record PictureFormat(string Type, int Width, int Height)
{
    /// <summary>Largest picture that is kept, bytes: one that a phone takes, made smaller, has a quarter of a megabyte.</summary>
    public const int MostBytes = 2_000_000;

    /// <summary>Each way; what is unpacked to be shown has to fit in memory.</summary>
    private const int MostPixels = 10_000;

    private static ReadOnlySpan<byte> PngMark => [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A];

    /// <exception cref="RefusedException">It is no picture of these types, or too large a one.</exception>
    public static PictureFormat Of(ReadOnlySpan<byte> bytes)
    {
        if (bytes.Length > MostBytes)
        {
            throw new RefusedException("The picture is larger than 2 MB; make it smaller before it is sent.");
        }

        var format =
            Png(bytes)
            ?? Jpeg(bytes)
            ?? throw new RefusedException("That is no JPEG or PNG picture, or it is damaged; take the photo again or choose another file.");
        return format is { Width: > 0 and <= MostPixels, Height: > 0 and <= MostPixels }
            ? format
            : throw new RefusedException($"The picture has more than {MostPixels} pixels one way; make it smaller.");
    }

    private static PictureFormat? Png(ReadOnlySpan<byte> bytes) =>
        bytes.Length > 24 && bytes.StartsWith(PngMark) && bytes.Slice(12, 4).SequenceEqual("IHDR"u8)
            ? new PictureFormat(
                "image/png",
                (int)Math.Min(int.MaxValue, BinaryPrimitives.ReadUInt32BigEndian(bytes[16..])),
                (int)Math.Min(int.MaxValue, BinaryPrimitives.ReadUInt32BigEndian(bytes[20..]))
            )
            : null;

    /// <summary>Goes from marker to marker to the one that begins the frame.</summary>
    private static PictureFormat? Jpeg(ReadOnlySpan<byte> bytes)
    {
        const byte mark = 0xFF;
        if (bytes.Length < 4 || bytes[0] != mark || bytes[1] != 0xD8)
        {
            return null;
        }

        for (var at = 2; at + 9 < bytes.Length && bytes[at] == mark; )
        {
            var marker = bytes[at + 1];
            if (marker == mark)
            {
                at++;
                continue;
            }

            // Frames are C0 to CF, but for the tables C4 and CC and the reserved C8.
            if (marker is >= 0xC0 and <= 0xCF and not (0xC4 or 0xC8 or 0xCC))
            {
                return new PictureFormat(
                    "image/jpeg",
                    BinaryPrimitives.ReadUInt16BigEndian(bytes[(at + 7)..]),
                    BinaryPrimitives.ReadUInt16BigEndian(bytes[(at + 5)..])
                );
            }

            var length = BinaryPrimitives.ReadUInt16BigEndian(bytes[(at + 2)..]);
            if (length < 2)
            {
                return null;
            }

            at += 2 + length;
        }

        return null;
    }
}
