using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// What a circuit's own good coils and windings measure: read on an isolated circuit with nothing held and no wire lifted, in a job that
/// ended
/// repaired and proved, of a unit that was not repaired after the reading.
/// </summary>
public static class OwnResistances
{
    public static IEnumerable<(string Pair, Ohms Ohms)> Of(JobState job)
    {
        var lifted = 0;
        for (var i = 0; i < job.Valid.Length; i++)
        {
            lifted += job.Valid[i] switch
            {
                WireLifted => 1,
                WireLanded => -1,
                _ => 0,
            };
            if (
                lifted == 0
                && job.Valid[i]
                    is Reading
                    {
                        Quantity: Quantity.Ohms,
                        Value: { Kind: ReadingKind.Number, Number: > 2 },
                        Held.IsEmpty: true,
                        Alone: false,
                        FreeEnd: ""
                    } reading
                && !job.Void.ContainsKey(reading.Id)
                && IsWinding(job.Circuit, reading)
                && !job.Valid.Skip(i).OfType<Repair>().Any(r => r.Unit == reading.From.Device || r.Unit == reading.To.Device)
            )
            {
                yield return (Diagnosis.History.KeyOf(reading.From, reading.To), new Ohms(reading.Value.Number));
            }
        }
    }

    /// <summary>Both leads on one device that is a coil, a lamp or a winding between them.</summary>
    private static bool IsWinding(Circuit circuit, Reading reading) =>
        reading.From.Device == reading.To.Device
        && circuit.FindDevice(reading.From.Device) is { } device
        && (
            device
                .Kind.Elements(device)
                .Any(e =>
                    e.Role == ElementRole.Load
                    && ((e.A, e.B) == (reading.From.Name, reading.To.Name) || (e.B, e.A) == (reading.From.Name, reading.To.Name))
                )
            || circuit
                .Paths.Where(p => p.Type == PathType.Power)
                .SelectMany(p => p.Expression.Parts())
                .Any(p => p.Out.IsEmpty && p.Device == device.Tag && reading.From.Name != "PE" && reading.To.Name != "PE")
        );
}
