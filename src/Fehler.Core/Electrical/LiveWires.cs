using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>Which wires of a solved circuit carry a voltage: the one place where "live" is decided for a drawing.</summary>
public static class LiveWires
{
    /// <summary>
    /// Above this a wire is shown live, V: whatever a control circuit works with. That less than 25 or 50 V dry does not hurt (common
    /// practice) is no reason to show it dead.
    /// </summary>
    public const double AboveVolts = 10;

    /// <summary>Numbers of the wires that are live.</summary>
    public static ImmutableSortedSet<string> Of(CompiledCircuit compiled, Solution solution) =>
        [
            .. compiled
                .Circuit.Conductors.GroupBy(c => c.Wire)
                .Where(g => Volts(compiled, solution, g.First().From).Value > AboveVolts)
                .Select(g => g.Key),
        ];

    /// <summary>
    /// The greater of what stands to earth and to the return, alternating or direct, of what holds; a floating wire counts as dead here.
    /// </summary>
    public static Volts Volts(CompiledCircuit compiled, Solution solution, TerminalId terminal) =>
        new(
            new[] { compiled.Circuit.Earth, compiled.ReturnOf(terminal) }.Max(to =>
                Math.Max(
                    solution.IsFirm(terminal, to) ? solution.Volts(terminal, to).Magnitude : 0,
                    solution.IsFirmDirect(terminal, to) ? solution.DcVolts(terminal, to).Magnitude.Value : 0
                )
            )
        );
}
