using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Families;
using Fehler.Core.Faults;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests;

/// <summary>The two direct-on-line starters that the tests work on, and short ways to operate them.</summary>
internal static class Starters
{
    public static Circuit LineToNeutral { get; } = new DirectOnLine { Tag = "T-1", Title = "Infeed chain" }.Build();

    public static Circuit LineToLine { get; } =
        new DirectOnLine
        {
            Tag = "T-2",
            Title = "Log deck",
            Control = ControlSupply.LineToLine,
            OverloadContact = OverloadContactPlace.AfterCoil,
        }.Build();

    public static Circuit Of(string name) => name == "LN" ? LineToNeutral : LineToLine;

    public static Simulator Healthy(Circuit circuit) => new(Network.Of(circuit));

    public static Simulator With(Circuit circuit, params Alteration[] alterations) => new(Network.Of(circuit).With([.. alterations]));

    public static FaultMode Fault(Circuit circuit, string id) => FaultCatalogue.Of(circuit).First(f => f.Id == id);

    public static Simulator With(Circuit circuit, string fault) => new(Network.Of(circuit).With(Fault(circuit, fault).Alterations));

    public static readonly Step Press = new("S2", "pressed"),
        Release = new("S2", "released"),
        Stop = new("S1", "pressed"),
        StopReleased = new("S1", "released");

    public static Outcome Running(this Simulator simulator) => simulator.Do(simulator.Start().State, [Press, Release]);

    public static double Volts(this Outcome outcome, string from, string to) =>
        outcome.Solution.Volts(TerminalId.Parse(from), TerminalId.Parse(to)).Magnitude;

    public static double[] LineAmps(this Outcome outcome) =>
        [.. new[] { "1-2", "3-4", "5-6" }.Select(e => outcome.Solution.Amps("F2", e).Magnitude)];

    /// <summary>The circuit with one device's parameters changed.</summary>
    public static Circuit Changed(this Circuit circuit, string tag, string parameter, double value) =>
        circuit with
        {
            Devices = [.. circuit.Devices.Select(d => d.Tag == tag ? d.With(parameter, value) : d)],
        };
}
