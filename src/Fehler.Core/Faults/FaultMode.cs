using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Faults;

/// <summary>
/// One way in which one device or conductor fails. Modes whose size is unknown (a bad joint may be ten ohm or ten
/// thousand) come as several variants with one id; the diagnosis weighs them apart and shows them as one.
/// </summary>
/// <param name="Id">Stable name, e.g. <c>KM1/coil-open</c> or <c>4.2/open</c>.</param>
/// <param name="Unit">Tag of the device or id of the conductor that is repaired.</param>
/// <param name="Title">What has failed, in the words of the trade.</param>
/// <param name="Alterations">How the circuit differs.</param>
/// <param name="Weight">How often it happens relative to other faults (common practice; 1 is usual).</param>
/// <param name="Remedy">What is done about it.</param>
public sealed record FaultMode(string Id, string Unit, Wording Title, ImmutableArray<Alteration> Alterations, double Weight, Wording Remedy)
{
    /// <summary>Tells variants of one mode apart; empty when there is one.</summary>
    public string Variant { get; init; } = "";

    /// <summary>
    /// Factor by which the fault's size may differ from the one given (one standard deviation): 1 for an open circuit,
    /// about two for a resistance known only roughly. Readings are foretold for both sizes; their difference is what
    /// is not known.
    /// </summary>
    public double SizeFactor { get; init; } = 1;

    /// <summary>The two points between which a reading shows this fault directly; none for faults seen by eye or by operation.</summary>
    public (TerminalId From, TerminalId To)? ProofPoints { get; init; }

    /// <summary>
    /// It has its voltage and does nothing, and no ohmmeter tells (a lamp's electronics): a reading at its own points shows what a sound one has
    /// there, and proves it because it stays dark all the same.
    /// </summary>
    public bool IsIdleThoughFed { get; init; }

    /// <summary>The look (device tag, look id) that shows it directly.</summary>
    public (string Device, string Look)? ProofLook { get; init; }

    /// <summary>This trips or blows because of something else: finding it is not the end.</summary>
    public Wording? AskWhy { get; init; }

    /// <summary>The two faults of a pair; empty for a single one.</summary>
    public ImmutableArray<FaultMode> Parts { get; init; } = [];

    /// <summary>Units that have to be repaired.</summary>
    public ImmutableArray<string> Units => Parts.IsEmpty ? [Unit] : [.. Parts.Select(p => p.Unit).Distinct()];

    /// <summary>Whether repairing this unit takes the fault, or one of two, away.</summary>
    public bool IsIn(string unit) => Parts.IsEmpty ? Unit == unit : Parts.Any(p => p.Unit == unit);

    /// <summary>Two faults at once; the more frequent one is named first.</summary>
    public static FaultMode Both(FaultMode a, FaultMode b)
    {
        var (first, second) = (a.Weight, b.Id).CompareTo((b.Weight, a.Id)) >= 0 ? (a, b) : (b, a);
        var units = new[] { first.Unit, second.Unit }.Distinct();
        return new FaultMode(
            $"{first.Id}{first.Variant} + {second.Id}{second.Variant}",
            string.Join(" + ", units),
            $"{first.Title}; and {second.Title}",
            [.. first.Alterations, .. second.Alterations],
            first.Weight * second.Weight,
            $"{first.Remedy} Then: {second.Remedy}"
        )
        {
            Parts = [first, second],
            SizeFactor = Math.Max(first.SizeFactor, second.SizeFactor),
            AskWhy = first.AskWhy ?? second.AskWhy,
        };
    }

    /// <summary>A broken strand, a loose screw, a dirty or hot contact: it may be there at one look and gone at the next.</summary>
    public bool CanComeAndGo =>
        !IsWiring && Alterations.All(a => a is ElementOpen or ElementSeriesOhms or ConductorOpen or ConductorSeriesOhms or Bridge);

    /// <summary>A current that only a protective device limits flows where it should not: never to be closed onto twice.</summary>
    public bool IsShort => !IsWiring && Alterations.Any(a => a is Bridge { Ohms: < ShortBelowOhms });

    /// <summary>A current flows where it should not, however large: to earth, to another conductor, past turns of a coil.</summary>
    public bool Leaks => !IsWiring && Alterations.Any(a => a is Bridge or ElementImpedance);

    /// <summary>The currents of a motor's lines show it where ohms hardly do: measured there it is measured at its own.</summary>
    public bool ShowsInCurrents { get; init; }

    /// <summary>At 230 V some ten amperes and more.</summary>
    private const double ShortBelowOhms = 20;

    /// <summary>The installed wiring differs from the drawing.</summary>
    public bool IsWiring => Alterations.Any(a => a is Bridge) && Alterations.Any(a => a is ConductorOpen);

    /// <summary>Weight by which the place multiplies: field devices and terminals fail more than panel wiring.</summary>
    public string Kind => Id[(Id.IndexOf('/', StringComparison.Ordinal) + 1)..];
}
