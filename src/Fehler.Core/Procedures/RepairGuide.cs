using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Procedures;

/// <summary>
/// From a named fault to a circuit that is given back: what proves it, what to do in order, what to bring, how to see that it is cured, why
/// it may have failed and what to write down.
/// </summary>
/// <param name="ProvedBy">The reading or look that shows this fault and nothing else, with what it shows and what a good one shows.</param>
/// <param name="Cautions">What can hurt, before anything is touched.</param>
/// <param name="Steps">What to do, in order, from isolating to landing the last wire.</param>
/// <param name="Parts">What to bring.</param>
/// <param name="AfterCheck">What to measure and try when it is done.</param>
/// <param name="Causes">Why it usually fails, and how to check for each.</param>
/// <param name="Choices">Ways that practitioners differ about, with what speaks for each.</param>
/// <param name="Record">What the log should hold.</param>
public sealed record RepairGuide(
    Wording ProvedBy,
    ImmutableArray<Wording> Cautions,
    ImmutableArray<Wording> Steps,
    ImmutableArray<Wording> Parts,
    ImmutableArray<Wording> AfterCheck,
    ImmutableArray<RootCause> Causes,
    ImmutableArray<RepairChoice> Choices,
    ImmutableArray<Wording> Record
)
{
    /// <summary>The guide for a single fault of a circuit.</summary>
    internal static RepairGuide Written(CompiledCircuit compiled, FaultMode mode)
    {
        var circuit = compiled.Circuit;
        var device = circuit.FindDevice(mode.Unit);
        var notes = device is not null
            ? device.Kind.Repair(device, mode)
            : RepairNotes.Of(circuit, circuit.Conductors.First(c => c.Id == mode.Unit), mode);
        var proof = Proof.Of(compiled, mode);
        var isolation = compiled.Isolation;
        ImmutableArray<string> points = [.. isolation.Points];
        return new RepairGuide(
            proof?.Told ?? Seen(compiled, mode),
            [
                .. notes.Isolated ? ["A competent person decides; local codes and site rules come first."] : ImmutableArray<Wording>.Empty,
                .. notes.Cautions,
                .. device?.Kind.Cautions(device) ?? [],
            ],
            [
                .. notes.Isolated
                    ?
                    [
                        $"Open {string.Join(" and ", points)}, lock off, prove dead at the point of work.",
                        "Before a wire comes off: note its terminal and number, or take a picture.",
                    ]
                    : ImmutableArray<Wording>.Empty,
                .. notes.Steps,
                .. notes.Isolated
                    ? [$"Every lifted wire back and tight, {Term.ProtectiveConductors} checked, tools out, cover on."]
                    : ImmutableArray<Wording>.Empty,
            ],
            notes.Parts,
            [
                .. proof is { } p ? [$"{p.Where}: {p.Good}."] : ImmutableArray<Wording>.Empty,
                $"Function test of this circuit, {compiled.FunctionTest.Steps.Length} steps: control first with the motor's "
                    + "lines open where that can be done, then the motor.",
                .. mode.AskWhy is null ? ImmutableArray<Wording>.Empty : ["Current in each phase under load, against the nameplate."],
            ],
            notes.Causes,
            notes.Choices,
            [
                "What was measured before and after, with the meter.",
                .. notes.Parts.IsEmpty ? ImmutableArray<Wording>.Empty : ["Part and type that were fitted."],
                "The cause, or that it was looked for and not found.",
                "Minutes of work and minutes down.",
            ]
        );
    }

    private static Wording Seen(CompiledCircuit compiled, FaultMode mode)
    {
        if (mode.ProofLook is { } look && compiled.Circuit.FindDevice(look.Device) is { } device)
        {
            var how = device.Kind.Looks(device).First(l => l.Id == look.Look);
            return how.PressedTo.Length > 0 ? $"Felt by hand: {how.Question}." : $"Seen by eye: {how.Question}.";
        }

        if (compiled.WhereFaultsShow.Of(mode) is { } showing)
        {
            return $"{showing.Text}.";
        }

        return "No single reading shows it: it is what is left when the readings around it are good, and it shows when the device is "
            + "operated by hand with the circuit dead.";
    }

    /// <summary>The resistance that shows a fault: where, in which state, what it is then and what a good circuit has.</summary>
    private sealed record Proof(string Where, string Faulty, string Good)
    {
        public string Told => $"{Where}: {Faulty}, where a good one has {Good}.";

        public static Proof? Of(CompiledCircuit compiled, FaultMode mode)
        {
            if (
                mode.ProofPoints is not { } points
                || compiled.Isolation.LiveTerminals is var live && (live.Contains(points.From) || live.Contains(points.To))
            )
            {
                return null;
            }

            var (healthy, faulty) = (compiled.Network, compiled.Network.With(mode.Alterations));
            var dead = new Simulator(healthy).Do(CircuitState.AtRest(compiled.Circuit), compiled.Isolation.Off).State;
            return Held(compiled.Circuit, points)
                .Select(held =>
                    (Held: held, State: new Simulator(healthy).Arrange(dead, held), Faulty: new Simulator(faulty).Arrange(dead, held))
                )
                .Select(x =>
                    (x.Held, Good: healthy.Ohms(x.State, points.From, points.To), Bad: faulty.Ohms(x.Faulty, points.From, points.To))
                )
                .Where(x => Differ(x.Good, x.Bad))
                .Select(x => new Proof(
                    $"Ohms from {points.From} to {points.To}, isolated and proved "
                        + $"dead{string.Concat(x.Held.Select(h => $", {Hold(h)}"))}",
                    Shown(x.Bad),
                    Shown(x.Good)
                ))
                .FirstOrDefault();
        }

        private static string Hold(Step held) =>
            held.Position == "in" ? $"armature of {held.Device} pressed in by hand" : $"{held.Device} {held.Position}";

        private static string Shown(Ohms ohms) =>
            ohms.IsOpen ? "OL"
            : ohms.Value < 1 ? "next to nothing"
            : $"about {ReadingText.Show(new Ohms(Rounded(ohms.Value)))}";

        /// <summary>At rest, then with each of the two devices operated by hand.</summary>
        private static IEnumerable<ImmutableArray<Step>> Held(Circuit circuit, (TerminalId From, TerminalId To) points)
        {
            yield return [];
            foreach (var device in new[] { points.From.Device, points.To.Device }.Distinct().Select(circuit.Device))
            {
                foreach (var actuation in device.Kind.Actuations(device).Where(a => a.Returns))
                {
                    yield return [new Step(device.Tag, actuation.Position)];
                }
            }
        }

        private static bool Differ(Ohms a, Ohms b) =>
            a.IsOpen != b.IsOpen || (!a.IsOpen && Math.Abs(a.Value - b.Value) > 0.2 * Math.Max(a.Value, b.Value) + 0.5);

        private static double Rounded(double ohms) =>
            ohms == 0
                ? 0
                : double.Parse(
                    ohms.ToString("G2", System.Globalization.CultureInfo.InvariantCulture),
                    System.Globalization.CultureInfo.InvariantCulture
                );
    }
}
