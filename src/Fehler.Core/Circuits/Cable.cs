using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>The cores that run from one place to another in one sheath; power and control are laid apart (common practice).</summary>
/// <param name="Near">The place that is nearer to the panel.</param>
/// <param name="Far">The other one.</param>
/// <param name="IsPower">Whether it feeds a motor.</param>
/// <param name="Cores">Conductors, in the order of the description; the protective conductor is one of them.</param>
public sealed record Cable(Location Near, Location Far, bool IsPower, ImmutableArray<Conductor> Cores)
{
    /// <summary>Every cable of a circuit.</summary>
    public static ImmutableArray<Cable> Of(Circuit circuit)
    {
        var power = PowerTerminals(circuit);
        return
        [
            .. circuit
                .Conductors.Select(c => (Core: c, Ends: Ordered(circuit.LocationOf(c.From), circuit.LocationOf(c.To))))
                .Where(c => c.Ends.Near.Id != c.Ends.Far.Id)
                .GroupBy(c => (c.Ends.Near, c.Ends.Far, IsPower: IsPowerConductor(power, c.Core)))
                .Select(g => new Cable(g.Key.Near, g.Key.Far, g.Key.IsPower, [.. g.Select(c => c.Core)])),
        ];
    }

    /// <summary>Cores that lie beside each other: as they are listed, and the last beside the first.</summary>
    public IEnumerable<(Conductor A, Conductor B)> Neighbours =>
        Cores.Length < 3 ? Cores.Zip(Cores.Skip(1)) : Cores.Zip(Cores.Skip(1).Append(Cores[0]));

    /// <summary>The end of a core towards the panel.</summary>
    public TerminalId NearEnd(Circuit circuit, Conductor core) => circuit.LocationOf(core.From) == Near ? core.From : core.To;

    /// <summary>The end of a core away from the panel.</summary>
    public TerminalId FarEnd(Circuit circuit, Conductor core) => circuit.LocationOf(core.From) == Near ? core.To : core.From;

    /// <summary>Terminals that a motor's current passes.</summary>
    internal static ImmutableHashSet<TerminalId> PowerTerminals(Circuit circuit) =>
        [
            .. circuit
                .Paths.Where(p => p.Type == PathType.Power)
                .SelectMany(p => p.Expression.Parts())
                .SelectMany(p => p.In.Concat(p.Out).Select(t => new TerminalId(p.Device, t))),
        ];

    internal static bool IsPowerConductor(ImmutableHashSet<TerminalId> power, Conductor conductor) =>
        power.Contains(conductor.From) || power.Contains(conductor.To);

    private static (Location Near, Location Far) Ordered(Location a, Location b) =>
        (a.Type == LocationType.Enclosure ? 0 : 1, a.CableMetres).CompareTo((b.Type == LocationType.Enclosure ? 0 : 1, b.CableMetres)) <= 0
            ? (a, b)
            : (b, a);
}
