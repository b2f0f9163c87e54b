using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>A two-terminal branch of the network: an element of a device, a conductor, or a bridge that should not be there.</summary>
internal sealed record NetworkBranch(int A, int B)
{
    public int Device { get; init; } = -1;
    public int ElementIndex { get; init; }
    public Element? Element { get; init; }
    public Conductor? Conductor { get; init; }
    public bool Open { get; init; }
    public bool Made { get; init; }
    public bool Inverted { get; init; }
    public double SeriesOhms { get; init; }
    public bool UnderVoltage { get; init; }

    /// <summary>A bridge out of a conductor stands here while these ends are landed, and those lifted.</summary>
    public ImmutableArray<ConductorEnd> WhileLanded { get; init; } = [];

    public ImmutableArray<ConductorEnd> WhileLifted { get; init; } = [];

    /// <summary>Whether it stands here at all, whatever was lifted.</summary>
    public bool IsHere(CircuitState state) =>
        state.Lifted.Count == 0 ? WhileLifted.IsEmpty : WhileLifted.All(state.Lifted.Contains) && !WhileLanded.Any(state.Lifted.Contains);

    /// <summary>Capacitance between two cores of a cable, F; 0 for what conducts.</summary>
    public double Farads { get; init; }

    public double ImpedanceFactor { get; init; } = 1;

    /// <summary>The branch with a fault in it; the same when the fault is elsewhere.</summary>
    /// <param name="circuit">The circuit that the branch is of.</param>
    /// <param name="alterations">What is altered.</param>
    public NetworkBranch With(Circuit circuit, ImmutableArray<Alteration> alterations)
    {
        var branch = this;
        foreach (var alteration in alterations)
        {
            branch = alteration switch
            {
                ElementOpen a when Is(circuit, a.Device, a.Element) => branch with { Open = true },
                ElementMade a when Is(circuit, a.Device, a.Element) => branch with { Made = true },
                ContactInverted a when Is(circuit, a.Device, a.Element) => branch with { Inverted = true },
                ElementSeriesOhms a when Is(circuit, a.Device, a.Element) => branch with { SeriesOhms = branch.SeriesOhms + a.Ohms },
                ElementImpedance a when Is(circuit, a.Device, a.Element) => branch with
                {
                    ImpedanceFactor = branch.ImpedanceFactor * a.Factor,
                },
                ConductorOpen a when Conductor?.Id == a.Conductor => branch with { Open = true },
                ConductorSeriesOhms a when Conductor?.Id == a.Conductor => branch with { SeriesOhms = branch.SeriesOhms + a.Ohms },
                _ => branch,
            };
        }

        return branch;
    }

    private bool Is(Circuit circuit, string device, string element) =>
        Element is { } e && circuit.Devices[Device].Tag == device && e.Name == element;
}
