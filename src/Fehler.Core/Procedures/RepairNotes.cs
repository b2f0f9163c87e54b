using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Procedures;

/// <summary>A usual reason why something failed, and how to check whether it was that.</summary>
public sealed record RootCause(Wording What, Wording Check);

/// <summary>One of several ways to repair the same, with what speaks for it: practitioners differ, and the plant decides.</summary>
public sealed record RepairChoice(Wording Way, Wording For);

/// <summary>
/// What the trade knows about repairing one fault: kept with the kind of device that fails that way. What a circuit adds (which reading
/// proves it, isolation, wires, function test) is worked out by <see cref="Procedures.RepairGuide"/>. All of it common practice.
/// </summary>
public sealed record RepairNotes
{
    /// <summary>What is done, in order, once it is safe to.</summary>
    public ImmutableArray<Wording> Steps { get; init; } = [];

    /// <summary>What to bring.</summary>
    public ImmutableArray<Wording> Parts { get; init; } = [];

    public ImmutableArray<RootCause> Causes { get; init; } = [];

    /// <summary>Ways that practitioners differ about; empty where all do the same.</summary>
    public ImmutableArray<RepairChoice> Choices { get; init; } = [];

    /// <summary>What to mind besides isolating.</summary>
    public ImmutableArray<Wording> Cautions { get; init; } = [];

    /// <summary>Hands go into the panel or the machine; a reset or a dial does not need that.</summary>
    public bool Isolated { get; init; } = true;

    /// <summary>What holds for any device, by what is wrong with it and by the part of it that is.</summary>
    internal static RepairNotes Of(Device device, FaultMode fault)
    {
        var element = device.Kind.Elements(device).FirstOrDefault(e => fault.Kind.StartsWith(e.Name + "-", StringComparison.Ordinal));
        return fault.Alterations[0] switch
        {
            ContactInverted => Exchanged(device, element!.Name),
            PositionLocked or DoesNotReturn or DoesNotReach => Mechanism(device, fault),
            FoundInPosition => LeftOperated(device, fault),
            ElementMade when element?.Role == ElementRole.Pole || fault.Kind == "all-welded" => Welded(device),
            ElementOpen or ElementSeriesOhms when element?.Role is ElementRole.Pole or ElementRole.Link => BurntPole(device, fault),
            _ when element?.IsContact == true => Contact(device, element.Name),
            _ => new RepairNotes
            {
                Steps = [fault.Remedy],
                Parts = [$"{device.Kind.ReplaceableUnit} for {device.Tag}, same type"],
                Causes = [Heat, Moisture],
            },
        };
    }

    /// <summary>A conductor or one of its two terminals.</summary>
    internal static RepairNotes Of(Circuit circuit, Conductor conductor, FaultMode fault)
    {
        var (isField, wire) = (
            circuit.LocationOf(conductor.From) != circuit.LocationOf(conductor.To),
            $"wire {conductor.Wire} ({conductor.From} to {conductor.To})"
        );
        var rubbed = new RootCause(
            "The cable rubs, is crushed or stands in water",
            "Walk its route with the supply off: glands, bends, drag chain, roof edges"
        );
        var worked = new RootCause("Work was done here before", "Ask and read the log: what was changed, lifted or replaced last?");
        return fault.Alterations[0] switch
        {
            ConductorSeriesOhms => new RepairNotes
            {
                Steps =
                [
                    $"Open both terminals of {wire}; cut back to bright copper; fit new {Term.EndSleeves}.",
                    "Clean or replace a burnt terminal; tighten to its torque.",
                    "Try every other screw of the same device while it is dead.",
                ],
                Parts = [$"{Term.EndSleeves.Capital} of the conductor's size", "Terminal, if it is burnt"],
                Causes =
                [
                    Vibration,
                    new RootCause("Two sizes of conductor under one screw, or strands left out", "Pull gently at each conductor"),
                    Heat,
                ],
            },
            ConductorOpen when fault.IsWiring => new RepairNotes
            {
                Steps =
                [
                    fault.Remedy,
                    "Compare the neighbouring conductors with the drawing too: wires are seldom exchanged alone.",
                    "Number the conductor if its number is missing.",
                ],
                Causes = [worked],
                Cautions = ["A wire on the wrong terminal may have bridged an interlock: prove every interlock in the function test."],
            },
            ConductorOpen => new RepairNotes
            {
                Steps =
                [
                    $"Look at both ends of {wire} first: off its terminal, broken at the sleeve, left lifted after a test.",
                    "Land it and tighten; or draw a new conductor or use a spare core, numbered at both ends.",
                ],
                Parts = ["Conductor or spare core of the same size and colour", $"{Term.EndSleeves.Capital}, numbers"],
                Causes = isField ? [worked, rubbed, Vibration] : [worked, Vibration],
                Cautions = circuit.IsProtective(conductor)
                    ? [$"With the {Term.ProtectiveConductor} open, dead to {Term.Earth} proves nothing, and a case may be live."]
                    : [],
            },
            _ => new RepairNotes
            {
                Steps =
                [
                    $"Lift {wire} at both ends and measure the cable by itself, then what it goes to by itself.",
                    "Find where it touches; replace the cable or take a spare core. Tape is not a repair.",
                ],
                Parts = [isField ? "Cable of the same cores and size, glands" : "Conductor of the same size"],
                Causes = [rubbed, Moisture],
                Cautions = ["Do not put in larger fuses to find a short circuit; do not switch on to see whether it is still there."],
            },
        };
    }

    internal static RootCause Heat { get; } =
        new("The cabinet is too hot", "Feel and measure: fan, filter, sun; above 40 °C settings and ratings no longer hold");
    internal static RootCause Moisture { get; } =
        new("Water or condensation", "Look for rust, white bloom and drops; glands, drain hole, heater");
    internal static RootCause Vibration { get; } =
        new("Vibration loosens screws", "Try the neighbouring terminals; is the enclosure mounted on the machine?");
    internal static RootCause Dust { get; } = new("Dust or resin on the contacts", "Open the cover: seal, gland and filter");
    internal static RootCause ManyOperations { get; } =
        new("Worn out by many operations", "Ask for starts an hour; compare with the rated life");

    /// <summary>A part of a contactor, or the whole of it.</summary>
    /// <param name="part">The part.</param>
    /// <param name="when">What speaks for the part alone.</param>
    internal static ImmutableArray<RepairChoice> PartOrWhole(Wording part, Wording when) =>
        [
            new RepairChoice(part, when),
            new RepairChoice(
                "The whole contactor",
                "It is old, or its contacts are worn as well; the part is not in the store or costs nearly as much; the machine "
                    + "must run again at once"
            ),
        ];

    private static bool IsContactor(Device device) => device.Kind.CoilOf(device) is not null && device.Kind.RatingOf(device) is not null;

    private static RepairNotes Contact(Device device, string contact) =>
        new()
        {
            Choices = IsContactor(device)
                ? PartOrWhole("The contact block alone", "The main contacts are good and the block is of a kind that comes off")
                : [],
            Steps =
            [
                $"Replace the contact block that carries {contact} of {device.Tag}; do not file or bend contacts.",
                "Seat it until it latches; operate it by hand both ways with a meter on it, cover on.",
            ],
            Parts = [$"Contact block for {device.Tag}, same type, with {contact}"],
            Causes =
            [
                Dust,
                ManyOperations,
                new RootCause("The block is not seated, or the operator does not reach it", "Watch it move with the cover on"),
            ],
        };

    private static RepairNotes Exchanged(Device device, string contact) =>
        new()
        {
            Steps =
            [
                $"Compare the block on {device.Tag} with the drawing: its colour and numbers tell make from break.",
                $"Fit the block for {contact}; measure it both ways before the cover goes on.",
            ],
            Parts = [$"Contact block for {device.Tag} with {contact}"],
            Causes = [new RootCause("The wrong block was fitted at the last repair", "Read the log; look at the other stations too")],
            Cautions = ["A Stop or limit with an exchanged block does not stop: prove it before the machine is given back."],
        };

    private static RepairNotes Mechanism(Device device, FaultMode fault) =>
        new()
        {
            Steps = [fault.Remedy, $"Operate {device.Tag} by hand with the circuit dead: it moves its whole way and comes back by itself."],
            Parts = [$"{device.Kind.ReplaceableUnit} for {device.Tag}, same type and voltage"],
            Causes =
            [
                Dust,
                ManyOperations,
                new RootCause("Mounted askew or screwed too tight to an uneven plate", "Loosen the fixing screws: does it move freely?"),
            ],
        };

    private static RepairNotes LeftOperated(Device device, FaultMode fault) =>
        new()
        {
            Steps = [$"Ask who operated {device.Tag} and why, and whether people are at the machine.", fault.Remedy],
            Causes = [new RootCause($"Somebody operated {device.Tag} for a reason", "Ask before it is brought back")],
            Cautions = ["Bringing it back may start the machine."],
            Isolated = false,
        };

    private static RepairNotes Welded(Device device) =>
        new()
        {
            Choices = IsContactor(device)
                ? PartOrWhole(
                    "The set of main contacts",
                    "Large contactors whose maker sells them, arc chambers clean and nothing else hurt by the current; all of one contactor together"
                )
                : [],
            Steps =
            [
                $"Replace {device.Tag}, or all its main contacts as a set; welded contacts are not broken free and used again.",
                "Check the other devices that the same current went through.",
            ],
            Parts =
            [
                $"{device.Kind.ReplaceableUnit} {device.Tag}: same rating (AC-3), coil voltage and auxiliary contacts; or its "
                    + "set of main contacts",
            ],
            Causes =
            [
                new RootCause(
                    $"It closed on a short circuit or {Term.EarthFault.WithArticle}",
                    "Insulation and windings of the motor and its cable before anything is switched on"
                ),
                new RootCause(
                    "Jogging or reversing before the motor stood still",
                    "Ask how it is driven; AC-4 duty needs a larger contactor"
                ),
                new RootCause(
                    "It chattered: weak or unsteady control voltage",
                    "Coil volts while the motor starts; a Start, limit or relay contact that bounces"
                ),
                new RootCause("The motor is larger than the contactor is for", $"{Term.NameplateCurrent.Capital} against the AC-3 rating"),
            ],
            Cautions = ["With a pole welded a lead of the motor stays live although it stands still: isolate ahead of the contactor."],
        };

    private static RepairNotes BurntPole(Device device, FaultMode fault) =>
        new()
        {
            Choices = IsContactor(device)
                ? PartOrWhole("The set of main contacts", "Housing and terminals not brown; all of one contactor together, never one pole")
                : [],
            Steps =
            [
                fault.Remedy,
                "Replace conductors whose insulation is brown; cut back to bright copper; tighten to torque.",
                "Measure the voltage drop over each pole under load afterwards: alike, and some tens of millivolts.",
            ],
            Parts =
            [
                $"{device.Kind.ReplaceableUnit} or its contacts for {device.Tag}, same type",
                "Cable lugs or sleeves of the conductors' size",
            ],
            Causes =
            [
                new RootCause("A loose terminal", "Discoloured insulation, a screw that gives way"),
                ManyOperations,
                new RootCause("Overload", "Current in each phase against the nameplate"),
            ],
            Cautions = ["The motor has run on two phases: compare its three windings before it is started again."],
        };
}
