using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Where to lift one wire to tell on which side of it something leaks. An earth fault shows the same ohms everywhere along what is connected: it is
/// found by taking that apart, in halves of the suspicion (common practice).
/// </summary>
internal sealed class LeakSplits
{
    /// <summary>Less suspicion than this on the smaller side is not worth a screw.</summary>
    private const double LeastDivided = 0.02;

    /// <summary>What conducts better than this is one with what it joins: a made contact, a heater, a fuse; siemens.</summary>
    private const double JoinsAbove = 1;

    private readonly Network _network;

    /// <summary>Suspicion of what leaks, by the conductor that it is in, or the terminal of the device.</summary>
    private readonly Dictionary<string, double> _leaks;

    /// <summary>What hangs together with each node, by conductors and what conducts as well.</summary>
    private readonly ILookup<int, (int Node, string Conductor)> _joined;

    /// <param name="network">The healthy circuit.</param>
    /// <param name="weighed">What is suspected.</param>
    public LeakSplits(Network network, WeighedHypotheses weighed)
    {
        _network = network;
        _leaks = weighed
            .Live.Select((h, i) => (h.Fault, h.IsRepaired, Weight: weighed.Weights[i]))
            .Where(x => x is { IsRepaired: false, Fault: { Leaks: true, Parts.IsEmpty: true } })
            .GroupBy(x => Where(x.Fault!))
            .ToDictionary(g => g.Key, g => g.Sum(x => x.Weight));
        _joined = (_leaks.Count < 2 ? [] : Joins(weighed.Standing.State)).ToLookup(j => j.From, j => (j.To, j.Conductor));
    }

    /// <summary>Ends of conductors, the one that divides the suspicion best first.</summary>
    public IEnumerable<ConductorEnd> Best()
    {
        var circuit = _network.Circuit;
        return _leaks.Count < 2 || _leaks.Values.Sum() < 2 * LeastDivided
            ? []
            : circuit
                .Conductors.Where(c => !circuit.IsProtective(c) && c.From.Device != c.To.Device)
                .SelectMany(c => new[] { c.EndAt(c.From), c.EndAt(c.To) })
                .Where(end => !circuit.Device(end.End.Device).Kind.IsSupply)
                .Select(end => (End: end, Divided: Divided(end)))
                .Where(x => x.Divided > LeastDivided)
                .OrderByDescending(x => Math.Round(x.Divided, 6))
                .Select(x => x.End);
    }

    private static string Where(FaultMode fault) =>
        fault.Alterations.OfType<Bridge>().FirstOrDefault() is { FromIn: { Length: > 0 } conductor }
            ? conductor
            : fault.ProofPoints?.From.ToString() ?? "";

    private IEnumerable<(int From, int To, string Conductor)> Joins(CircuitState state) =>
        _network
            .Branches.Where(b => b.A >= 0 && b.B >= 0)
            .Where(b => b.Conductor is not null || (b.Element is not null && _network.Admittance(b, state, Domain.Ohms).Real > JoinsAbove))
            .SelectMany(b => new[] { (b.A, b.B, b.Conductor?.Id ?? ""), (b.B, b.A, b.Conductor?.Id ?? "") });

    /// <summary>Suspicion on the smaller side of a conductor that is lifted off one of its terminals; 0 where the sides stay joined.</summary>
    private double Divided(ConductorEnd lifted)
    {
        var conductor = _network.Circuit.Conductors.First(c => c.Id == lifted.Conductor);
        var (here, there) = (Side(lifted.End, conductor.Id), Side(conductor.FarFrom(lifted.End), conductor.Id));
        // The conductor itself stays on its other end.
        there.Within.Add(conductor.Id);
        return here.Nodes.Overlaps(there.Nodes) ? 0 : Math.Min(On(here.Within, there.Within), On(there.Within, here.Within));

        double On(HashSet<string> side, HashSet<string> other) =>
            _leaks.Sum(x => side.Contains(x.Key) && !other.Contains(x.Key) ? x.Value : 0);
    }

    /// <summary>What hangs together with a terminal without this conductor: nodes, and the conductors and terminals there.</summary>
    private (HashSet<int> Nodes, HashSet<string> Within) Side(TerminalId from, string without)
    {
        var nodes = new HashSet<int> { _network.Node(from) };
        var within = new HashSet<string>();
        var open = new Queue<int>(nodes);
        while (open.TryDequeue(out var at))
        {
            foreach (var (next, conductor) in _joined[at].Where(j => j.Conductor != without))
            {
                if (conductor.Length > 0)
                {
                    within.Add(conductor);
                }

                if (nodes.Add(next))
                {
                    open.Enqueue(next);
                }
            }
        }

        foreach (var (terminal, node) in _network.Nodes)
        {
            if (nodes.Contains(node))
            {
                within.Add(terminal.ToString());
            }
        }

        return (nodes, within);
    }
}
