using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>Everything that a circuit's diagnosis begins with, worked out once for all jobs on it.</summary>
internal sealed class StartingHypotheses : IHoldsMemory
{
    /// <summary>Prior probability that nothing is wrong now: it cured itself, or was operated wrongly.</summary>
    private const double NothingWrongPrior = 0.02;

    /// <summary>Nobody tries more starts than this before calling.</summary>
    private const int MostTrials = 2;

    /// <summary>So many of the ways to start are thought of when nobody said which; and how long ago that was, s.</summary>
    private const int MostUnrecorded = 5;
    private const double UnrecordedSeconds = 60;

    /// <summary>Share of the voltage between lines that a stray point may show at most: tuned, see evaluation.</summary>
    private const double StrayShare = 0.7;

    /// <summary>Pairs of faults and unusual wirings that are kept, with about how much each comes to know.</summary>
    private const long MostSuspectedBytes = 12_000_000,
        SuspectedBytes = 6_000;

    private readonly BoundedMemory<string, ImmutableArray<Hypothesis>> _suspected = new(
        MostSuspectedBytes,
        hypotheses => SuspectedBytes + hypotheses[0].Bytes
    );

    public StartingHypotheses(CompiledCircuit compiled)
    {
        Compiled = compiled;
        Courses = new Courses(compiled.Network);
        Trial = TrialBeforeCalling(compiled);
        Unrecorded = [.. DoneUnrecorded(compiled).Take(MostUnrecorded)];
        Trips = [.. StepRules.TestTrips(compiled.Circuit).Select(step => new UnforetoldTrip(compiled, step))];
        FullVolts = ControlVolts(compiled);
        StraySpan = StrayShare * compiled.Circuit.Supply.Kind.SourceOf(compiled.Circuit.Supply)!.LineVolts.Value;
        TotalWeight = compiled.Faults.Sum(f => f.Weight);
        All =
        [
            .. Hypothesis.AsFound(this, null, NothingWrongPrior),
            .. AtOnce
                .Of(
                    compiled.Faults,
                    f =>
                        Hypothesis
                            .AsFound(this, f, (1 - NothingWrongPrior - DiagnosisSession.NoneOfThesePrior) * f.Weight / TotalWeight)
                            .ToList()
                )
                .SelectMany(h => h),
        ];
    }

    public CompiledCircuit Compiled { get; }

    public Network Healthy => Compiled.Network;

    public Courses Courses { get; }

    /// <summary>Something in it goes on by itself while the meter is fetched.</summary>
    public bool HasDelays => Compiled.Circuit.Devices.Any(d => d.Kind.HasDelays);

    /// <summary>What somebody has usually tried before calling: start, wait, stop.</summary>
    public ImmutableArray<Step> Trial { get; }

    /// <summary>What somebody may have done before anybody wrote anything down: one of the ways to start it, and to stop it.</summary>
    public ImmutableArray<ImmutableArray<Step>> Unrecorded { get; }

    /// <summary>What may have tripped although nothing foretells it.</summary>
    public ImmutableArray<UnforetoldTrip> Trips { get; }

    /// <summary>Sum of the catalogue's weights.</summary>
    public double TotalWeight { get; }

    /// <summary>Control voltage of a good circuit, V: what "full" means.</summary>
    public double FullVolts { get; }

    /// <summary>Greatest voltage a stray point may show, V.</summary>
    public double StraySpan { get; }

    /// <summary>The healthy circuit first, then every fault mode.</summary>
    public ImmutableArray<Hypothesis> All { get; }

    public long Bytes => Courses.Bytes + All.Sum(h => h.Bytes) + _suspected.Bytes;

    /// <summary>What is thought of only when nothing else fits, two faults at once or an unusual wiring, as it may be found.</summary>
    public IEnumerable<Hypothesis> Suspected(FaultMode fault, double prior) =>
        _suspected.GetOrAdd(fault.Id, _ => [.. Once(fault, prior)]).Select(h => h.Clone());

    /// <summary>The same of one that is hardly thought of again: nothing is remembered of it.</summary>
    public IEnumerable<Hypothesis> Once(FaultMode fault, double prior) => Hypothesis.AsFound(this, fault, prior);

    private static ImmutableArray<Step> TrialBeforeCalling(CompiledCircuit compiled)
    {
        var runUp = compiled.RunUp;
        var steps = new List<Step>();
        foreach (var start in runUp.Starts.Take(MostTrials))
        {
            steps.AddRange([.. start.Prepare, start.Act, Step.Wait(30)]);
            if (start.LetGo is not null)
            {
                steps.Add(start.LetGo);
            }

            steps.Add(Step.Wait(600));
            steps.AddRange(
                start.LetGo is null
                    ? [start.Back(compiled.Circuit)]
                    : runUp
                        .Stops.Take(1)
                        .SelectMany(stop => new[] { new Step(stop.Tag, "pressed"), Step.Wait(1), new Step(stop.Tag, "released") })
            );
        }

        return runUp.WorksAtRest ? [Step.Wait(600)] : [.. steps];
    }

    private static IEnumerable<ImmutableArray<Step>> DoneUnrecorded(CompiledCircuit compiled)
    {
        foreach (var start in compiled.RunUp.Starts)
        {
            ImmutableArray<Step> letGo = start.LetGo is null ? [] : [start.LetGo];
            yield return [.. start.Prepare, start.Act, .. letGo, Step.Wait(UnrecordedSeconds)];
        }

        foreach (var stop in compiled.RunUp.Stops.Take(1))
        {
            yield return [new Step(stop.Tag, "pressed"), new Step(stop.Tag, "released"), Step.Wait(UnrecordedSeconds)];
        }
    }

    private static double ControlVolts(CompiledCircuit compiled)
    {
        var circuit = compiled.Circuit;
        var solution = new Simulator(compiled.Network).Start().Solution;
        var head = circuit
            .Paths.Where(p => p.Type == PathType.Control && p.From.Length == 1 && p.To.Contains(circuit.Reference))
            .Select(p => p.From[0])
            .FirstOrDefault();
        return head == default
            ? 0
            : Math.Max(solution.Volts(head, circuit.Reference).Magnitude, solution.DcVolts(head, circuit.Reference).Magnitude.Value);
    }
}
