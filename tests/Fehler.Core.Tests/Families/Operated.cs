using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Families;

/// <summary>A circuit that is operated in words: <c>S2 pressed</c>, <c>wait 5</c>.</summary>
internal sealed class Operated
{
    private readonly Simulator _simulator;

    public Operated(Circuit circuit, params Alteration[] faults)
    {
        _simulator = new Simulator(Network.Of(circuit).With([.. faults]));
        Outcome = _simulator.Start();
    }

    public Operated(Circuit circuit, string fault, string variant = "")
        : this(
            circuit,
            [.. FaultCatalogue.Of(circuit).First(f => f.Id == fault && (variant.Length == 0 || f.Variant == variant)).Alterations]
        ) { }

    public Outcome Outcome { get; private set; }

    public string this[string tag] => Outcome.Appearances[tag];

    public Operated Do(params string[] steps)
    {
        foreach (var words in steps.Select(s => s.Split(' ')))
        {
            Outcome = _simulator.Do(
                Outcome.State,
                words[0] == "wait"
                    ? Step.Wait(double.Parse(words[1], System.Globalization.CultureInfo.InvariantCulture))
                    : new Step(words[0], string.Join(' ', words.Skip(1)))
            );
        }

        return this;
    }

    /// <summary>What a look shows now.</summary>
    public string Look(string tag, string look) =>
        _simulator.Look(Outcome.State, tag, look, _simulator.Network.Circuit.Device(tag), () => Outcome.Solution);

    public double Volts(string from, string to) => Outcome.Volts(from, to);

    public double DcVolts(string from, string to) => Outcome.Solution.DcVolts(TerminalId.Parse(from), TerminalId.Parse(to)).Value;

    public double Amps(string device, string element) => Outcome.Solution.Amps(device, element).Magnitude;
}
