using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Procedures;

/// <summary>One component test: where the leads go, in which position of the device, and what a good one shows.</summary>
/// <param name="Id">Stable name within the circuit.</param>
/// <param name="Device">Tag of the device.</param>
/// <param name="What">What is tested.</param>
/// <param name="Leads">Where the meter's leads go; empty for a look.</param>
/// <param name="Position">What is done to the device meanwhile.</param>
/// <param name="Good">What a good one shows, in words.</param>
/// <param name="Least">Least good resistance, ohm; null for a look, 0 when any low value is good.</param>
/// <param name="Most">Greatest good resistance, ohm; null when OL is good.</param>
public sealed record BenchCheckItem(
    string Id,
    string Device,
    string What,
    string Leads,
    string Position,
    string Good,
    double? Least,
    double? Most
)
{
    /// <summary>Whether this is measured in ohms rather than looked at.</summary>
    public bool IsMeasured => Leads.Length > 0;

    /// <summary>One of several windings that are wound alike.</summary>
    internal bool IsWinding { get; init; }

    /// <summary>
    /// Where the leads go, and the position the device is in meanwhile: named at rest as well where it may stand otherwise in the circuit
    /// (an isolator is off, an overload tripped).
    /// </summary>
    internal TerminalId From { get; init; }
    internal TerminalId To { get; init; }
    internal Step? Held { get; init; }

    /// <summary>What this test reads on a circuit, its wires off.</summary>
    internal Ohms ReadOn(Simulator panel)
    {
        var circuit = panel.Network.Circuit;
        var bare = panel.Observe(CircuitState.WiresOff(circuit)).State;
        return panel.Network.Ohms(Held is null ? bare : panel.Arrange(bare, [Held]), From, To);
    }

    /// <summary>
    /// This test's reading as an entry of a job's journal: of the device by itself, whatever is in parallel with it in the circuit.
    /// </summary>
    /// <exception cref="RefusedException">The text is no resistance.</exception>
    public Reading AsEntry(string typed) =>
        new(Quantity.Ohms, From, To, Held is null ? [] : [Held], ReadingText.Parse(typed, Quantity.Ohms))
        {
            Typed = typed.Trim(),
            Alone = true,
        };

    /// <summary>Whether a reading is good.</summary>
    public bool IsGood(Ohms reading) => IsMeasured && reading.Value >= (Least ?? 0) && reading.Value <= (Most ?? double.PositiveInfinity);
}

/// <summary>
/// The test of a starter's components before use or after a repair, everything isolated and its wires off: coil ohms, every pole and
/// contact released and pressed, every overload element, its contact tripped and reset, windings, terminals tight.
/// </summary>
public sealed class BenchCheck
{
    /// <summary>A closed contact or conductor on the bench, leads included (common practice: below an ohm).</summary>
    private const double ClosedOhms = 1;

    /// <summary>Below this a point is not open: less than the OL of a usual meter would let pass, ohm.</summary>
    private const double OpenOhms = 1e6;

    /// <summary>Windings of one motor are wound alike: further apart, leads and digits allowed for, one is bad (common practice).</summary>
    private const double AlikeShare = 0.1,
        AlikeOhms = 0.15;

    internal BenchCheck(CompiledCircuit compiled) => Items = [.. compiled.Circuit.Devices.SelectMany(d => OfDevice(compiled, d))];

    /// <summary>Device by device.</summary>
    public ImmutableArray<BenchCheckItem> Items { get; }

    /// <summary>The item of this name; null when there is none.</summary>
    public BenchCheckItem? Find(string id) => Items.FirstOrDefault(i => i.Id == id);

    /// <summary>
    /// Windings of one device that are each within their range and yet unlike each other: one of them is bad. By item, what is said.
    /// </summary>
    /// <param name="readings">What was read, by item.</param>
    public IReadOnlyDictionary<string, string> UnlikeTwins(IReadOnlyDictionary<string, Ohms> readings)
    {
        var unlike = new Dictionary<string, string>();
        foreach (var item in Items.Where(i => i.IsWinding && readings.ContainsKey(i.Id)))
        {
            var own = readings[item.Id];
            var others = Items.Where(i => AreTwins(i, item) && readings.ContainsKey(i.Id)).Select(i => readings[i.Id]).ToList();
            if (others.Count > 0 && !others.Exists(o => AreAlike(own, o)))
            {
                unlike[item.Id] =
                    $"{ReadingText.Show(own)}, where the others read {string.Join(" and ", others.Select(o => ReadingText.Show(o)))}";
            }
        }

        return unlike;
    }

    /// <summary>Two windings of one device that are to read the same.</summary>
    private static bool AreTwins(BenchCheckItem a, BenchCheckItem b) =>
        a != b
        && a.IsWinding
        && a.Device == b.Device
        && (a.Most is { } most && b.Most is { } other ? Math.Abs(most - other) <= 0.01 * other : a.Most == b.Most);

    private static bool AreAlike(Ohms a, Ohms b) =>
        a.IsOpen == b.IsOpen && (a.IsOpen || Math.Abs(a.Value - b.Value) <= AlikeShare * Math.Max(a.Value, b.Value) + AlikeOhms);

    private static IEnumerable<BenchCheckItem> OfDevice(CompiledCircuit compiled, Device device)
    {
        if (device.Kind.IsSupply || device.Kind.IsStrip)
        {
            yield break;
        }

        // Every wire off: what is measured is the device alone.
        var (network, circuit) = (compiled.Network, compiled.Circuit);
        var bare = CircuitState.WiresOff(circuit);
        var index = network.DeviceIndex(device.Tag);
        foreach (var (position, state, words) in Positions(device))
        {
            var (meter, more) = (network.OhmMeter(bare.With(index, state)), compiled.MoreCopper.OhmMeter(bare.With(index, state)));
            foreach (
                var element in device.Kind.Elements(device).Where(e => e.A[0] != '~' && e.B[0] != '~' && (e.IsContact || position == 0))
            )
            {
                var name = element.IsContact ? $"{Noun(element.Role)} {element.Name}" : $"{Noun(device, element)} {element.Name}";
                yield return Measured(
                    device,
                    $"{name}{(words.Length > 0 ? $", {words}" : "")}",
                    $"{element.Name}@{position}",
                    element.A,
                    element.B,
                    words,
                    meter(device.Terminal(element.A), device.Terminal(element.B)),
                    more(device.Terminal(element.A), device.Terminal(element.B))
                ) with
                {
                    Held = position == 0 && !Stays(device) ? null : new Step(device.Tag, device.Kind.Positions(device)[state.Position]),
                };
            }

            if (position == 0)
            {
                foreach (var item in Windings(device, meter, more))
                {
                    yield return item;
                }
            }
        }

        yield return new BenchCheckItem(
            $"{device.Tag}/tight",
            device.Tag,
            "Terminals tight, nothing burnt, cracked or wet",
            "",
            "",
            "tight and clean",
            null,
            null
        );
    }

    /// <summary>Windings with inner ends: between the leads, and each to the frame.</summary>
    private static IEnumerable<BenchCheckItem> Windings(
        Device device,
        Func<TerminalId, TerminalId, Ohms> meter,
        Func<TerminalId, TerminalId, Ohms> more
    )
    {
        if (!device.Kind.Elements(device).Any(e => e.B[0] == '~'))
        {
            yield break;
        }

        var leads = device.Kind.Terminals(device).Where(t => t != "PE").ToList();
        foreach (var (a, b) in leads.SelectMany((a, i) => leads.Skip(i + 1).Select(b => (a, b))))
        {
            var (from, to) = (device.Terminal(a), device.Terminal(b));
            yield return Measured(device, $"Winding {a} to {b}", $"{a}-{b}", a, b, "", meter(from, to), more(from, to)) with
            {
                IsWinding = true,
            };
        }

        if (device.Kind.HasTerminal(device, "PE"))
        {
            foreach (var lead in leads)
            {
                yield return Measured(
                    device,
                    $"{lead} to the frame",
                    $"{lead}-PE",
                    lead,
                    "PE",
                    "",
                    meter(device.Terminal(lead), device.Terminal("PE")),
                    meter(device.Terminal(lead), device.Terminal("PE"))
                );
            }
        }
    }

    /// <summary>Whether a device stays in a position it was put into.</summary>
    private static bool Stays(Device device) => device.Kind.Actuations(device).Any(a => !a.Returns);

    private static IEnumerable<(int Position, DeviceState State, string Words)> Positions(Device device)
    {
        var rest = device.Kind.InitialPosition(device);
        var hasContacts = device.Kind.Elements(device).Any(e => e.IsContact);
        yield return (0, new DeviceState(rest), hasContacts ? device.Kind.Positions(device)[rest] : "");
        for (var k = 0; k < device.Kind.Actuations(device).Length && hasContacts; k++)
        {
            var actuation = device.Kind.Actuations(device)[k];
            var position = device.Kind.Positions(device).IndexOf(actuation.Position);
            if (position != rest && !actuation.IsPastOperator)
            {
                var isArmature = actuation is { DeadOnly: true, Returns: true };
                yield return (k + 1, new DeviceState(position), isArmature ? "armature pressed" : actuation.Position);
            }
        }
    }

    /// <param name="measured">By the description.</param>
    /// <param name="more">With one standard deviation more copper in the windings.</param>
    private static BenchCheckItem Measured(
        Device device,
        string what,
        string id,
        string a,
        string b,
        string position,
        Ohms measured,
        Ohms more
    )
    {
        var ohms = measured.Value;
        var (least, most) = GoodOhms(measured, more);
        var item = new BenchCheckItem($"{device.Tag}/{id}", device.Tag, what, $"{a} – {b}", position, "", null, null)
        {
            From = device.Terminal(a),
            To = device.Terminal(b),
        };
        return ohms switch
        {
            > OpenOhms => item with { Good = "OL", Least = OpenOhms },
            < 0.5 => item with { Good = "below 1 Ω", Least = 0, Most = ClosedOhms },
            _ => item with { Good = Range(least, most), Least = least, Most = most },
        };
    }

    /// <summary>
    /// What good parts show where the description leads to <paramref name="measured"/>: two standard deviations of make and temperature, at
    /// least those of a meter and its leads.
    /// </summary>
    internal static (double Least, double Most) GoodOhms(Ohms measured, Ohms more)
    {
        var factor = Math.Max(1.1, Math.Pow(more / measured, 2));
        return (Math.Max(0, measured.Value / factor - 0.3), measured.Value * factor + 0.5);
    }

    internal static string Range(double least, double most) => $"{Shown(least)} to {Shown(most)}";

    private static string Shown(double ohms) => ReadingText.Show(new Ohms(Words.Rounded(ohms, Quantity.Ohms)));

    private static string Noun(Device device, Element element) =>
        element.Role == ElementRole.Link ? "Element"
        : device.Kind.CoilOf(device) is not null ? "Coil"
        : string.Concat(device.Kind.Name.ToString()[..1].ToUpperInvariant(), device.Kind.Name.ToString().AsSpan(1));

    private static string Noun(ElementRole role) =>
        role switch
        {
            ElementRole.Pole => "Pole",
            ElementRole.NormallyClosed => "Break contact",
            _ => "Make contact",
        };
}
