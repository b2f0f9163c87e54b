using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// One possible truth, followed through the journal: a circuit with this fault in it (or none), in the state that
/// everything done so far has brought it to. It predicts; it is judged by how well.
/// </summary>
internal sealed partial class Hypothesis
{
    /// <summary>
    /// Probability that a fault comes and goes, and that it is there at any one observation (common practice: one call in thirty).
    /// </summary>
    private const double IntermittentShare = 0.03,
        IntermittentPresence = 0.5;

    private readonly Dictionary<Setup, Prepared> _prepared = [];
    private readonly StartingHypotheses _beginning;
    private readonly Network _healthy;
    private readonly List<Judgement> _judged = [];
    private Trajectories _trajectories;
    private CircuitState? _released;

    /// <summary>Where it stands if it strikes only towards the end of the wait in which it strikes; null once that is past.</summary>
    private CircuitState? _struckLate;

    /// <summary>What was last foretold to be seen, while nothing has moved since.</summary>
    private Arrival? _standing;
    private double _steady,
        _intermittent;

    /// <summary>How high this panel's supply stands, by what was read so far.</summary>
    private SharedUnknown _supply = SharedUnknown.Of(Tolerances.SupplyShare);

    /// <summary>How heavily this panel's motor is loaded, by what was read so far.</summary>
    private SharedUnknown _load = SharedUnknown.Of(Tolerances.LoadShare);

    /// <summary>How much copper this panel's motor has, by what was read so far: its windings are of one make.</summary>
    private SharedUnknown _copper = SharedUnknown.Standard;

    private ImmutableHashSet<string> _trippedUnforetold = [];

    /// <summary>How large the fault is, by what was read so far.</summary>
    private FaultSize _size;

    /// <summary>The same fault one step larger or smaller: what differs is what cannot be foretold.</summary>
    private Network? _larger,
        _smaller;

    private Hypothesis(
        StartingHypotheses beginning,
        FaultMode? fault,
        Trajectories trajectories,
        Network? larger,
        CircuitState state,
        double prior
    )
    {
        _beginning = beginning;
        _healthy = beginning.Healthy;
        Fault = fault;
        _trajectories = trajectories;
        _larger = larger;
        _size = FaultSize.Unknown(fault?.SizeFactor ?? 1);
        State = state;
        Prior = prior;
    }

    /// <summary>The fault; null for a circuit with nothing wrong in it now.</summary>
    public FaultMode? Fault { get; private set; }

    public CircuitState State { get; private set; }

    /// <summary>What it sees on and on otherwise than it foretells.</summary>
    public SeenOtherwise Otherwise { get; } = new();

    /// <summary>How it was judged by each observation, in order; shorter than the journal for one that was left behind.</summary>
    public IReadOnlyList<Judgement> Judged => _judged;

    /// <summary>Entries of the journal it has been brought past.</summary>
    public int Followed { get; set; }

    /// <summary>How much more likely it is than the catalogue says, from earlier repairs.</summary>
    public double Factor { get; set; } = 1;

    /// <summary>Logarithm of prior times likelihood of what it was judged by: steady or coming and going.</summary>
    public double LogWeight => Math.Log(Prior * Factor) + Log(_steady, _intermittent);

    /// <summary>Of its weight the share of a fault that comes and goes.</summary>
    public double Intermittent => CanBeIntermittent ? IntermittentShare * Math.Exp(_intermittent - Log(_steady, _intermittent)) : 0;

    /// <summary>Every device stands as it is found: nothing is under way.</summary>
    public bool IsAtRest =>
        _healthy.Circuit.Devices.Select((d, i) => State.Devices[i].Position == d.Kind.InitialPosition(d)).All(atRest => atRest);

    /// <summary>Its fault has been repaired: from then on it behaves like a healthy circuit.</summary>
    public bool IsRepaired { get; private set; }

    /// <summary>
    /// The circuit as it may be found: at rest, or after somebody has tried to start it and stopped it again, which may have
    /// tripped or blown something. Both are kept where they differ.
    /// </summary>
    public static IEnumerable<Hypothesis> AsFound(StartingHypotheses beginning, FaultMode? fault, double prior)
    {
        var (healthy, courses) = (beginning.Healthy, beginning.Courses);
        var trajectories = new Trajectories(new Simulator(fault is null ? healthy : healthy.With(fault.Alterations)), courses);
        var larger = fault is null or { SizeFactor: 1 } ? null : OfSize(healthy, fault, fault.SizeFactor);
        var rest = courses.Arrived(trajectories.Simulator.Start()).State;
        var tried = Settled(trajectories, rest, beginning.Trial);
        Hypothesis Found(CircuitState state, double share) => new(beginning, fault, trajectories, larger, state, prior * share);
        return tried.Equals(rest) ? [Found(rest, 1)] : [Found(rest, 0.5), Found(tried, 0.5)];
    }

    /// <summary>
    /// This fault striking now: up to here the circuit behaved as a healthy one and stands as that does. What was seen before it struck
    /// neither speaks for it nor against it.
    /// </summary>
    /// <param name="healthy">The healthy circuit, judged up to the entry at which it strikes.</param>
    /// <param name="state">How the healthy circuit stood before that entry.</param>
    /// <param name="during">What was done in that entry.</param>
    /// <param name="followed">Entries before that one.</param>
    /// <param name="before">Observations before that one.</param>
    /// <param name="prior">Prior probability of this fault striking.</param>
    public Hypothesis Struck(
        Hypothesis healthy,
        CircuitState state,
        ImmutableArray<Step> during,
        int followed,
        IEnumerable<Observation> before,
        double prior
    )
    {
        CircuitState Strike(CircuitState standing) =>
            _beginning
                .Courses.Arrived(_trajectories.Simulator.Observe(Fault!.Alterations.OfType<FoundInPosition>().Aggregate(standing, Placed)))
                .State;
        var struck = new Hypothesis(_beginning, Fault, _trajectories, _larger, Strike(state), prior)
        {
            Followed = followed,
            Factor = Factor,
            _struckLate = during is [.., { Seconds: >= RoughFrom } wait]
                ? Strike(
                    healthy._trajectories.After(state, [.. during[..^1], wait with { Seconds = (1 - StruckLately) * wait.Seconds }]).State
                )
                : null,
            _supply = healthy._supply,
            _load = healthy._load,
            _copper = healthy._copper,
        };
        foreach (var observation in before)
        {
            // What people told is about the fault, not about the circuit as it was before it struck.
            var judgement = observation.Entry is Told told ? ToldLikelihood.Judged(told, Fault, _healthy.Circuit) : observation.By(healthy);
            struck.Judge(judgement, judgement);
        }

        return struck;
    }

    private CircuitState Placed(CircuitState state, FoundInPosition found)
    {
        var index = _healthy.DeviceIndex(found.Device);
        return state.With(index, state.Devices[index] with { Position = found.Position });
    }

    /// <summary>Prior probability, earlier repairs left out.</summary>
    public double Prior { get; }

    /// <summary>A fresh copy for another job on the same circuit.</summary>
    public Hypothesis Clone() => new(_beginning, Fault, _trajectories, _larger, State, Prior);

    /// <summary>About how much memory it holds, its network and what is known of its courses included.</summary>
    public long Bytes => _trajectories.Bytes + (_larger?.Bytes ?? 0) + (_smaller?.Bytes ?? 0) + 400;

    /// <summary>Takes the next observation into account.</summary>
    /// <param name="own">How well what it foretold fits.</param>
    /// <param name="healthy">How well a healthy circuit fits: what a fault that comes and goes shows while it is away.</param>
    public void Judge(Judgement own, Judgement healthy)
    {
        _judged.Add(own);
        _steady += Math.Log(own.Fit);
        _intermittent += Math.Log(own.ComingAndGoingFit ?? IntermittentPresence * own.Fit + (1 - IntermittentPresence) * healthy.Fit);
    }

    /// <summary>
    /// What it would weigh if some observations had fitted otherwise; those that it was never judged by are left as they are.
    /// </summary>
    public double LogWeightIf(IEnumerable<(int Observation, Func<Judgement, double> Fit)> instead) =>
        Math.Log(Prior * Factor)
        + instead
            .Where(x => x.Observation < _judged.Count)
            .Aggregate(_steady, (log, x) => log + Math.Log(x.Fit(_judged[x.Observation])) - Math.Log(_judged[x.Observation].Fit));

    private bool CanBeIntermittent => Fault is { CanComeAndGo: true };

    private double Log(double steady, double intermittent) =>
        !CanBeIntermittent
            ? steady
            : Math.Max(steady, intermittent)
                + Math.Log(
                    (1 - IntermittentShare) * Math.Exp(steady - Math.Max(steady, intermittent))
                        + IntermittentShare * Math.Exp(intermittent - Math.Max(steady, intermittent))
                );

    /// <summary>Does steps and stays there.</summary>
    public Arrival Operate(IReadOnlyCollection<Step> steps)
    {
        var arrival = _trajectories.After(State, steps);
        Move(arrival.State);
        return arrival;
    }

    /// <summary>
    /// Does steps and stays there. Times are rough: "after two minutes" may have been one or four, and a relay was warm from the tries before.
    /// What fits badly as written is tried with waits half and twice as long, for half of the weight; then as if the button had not quite
    /// been pressed; and as if something had happened first that nobody wrote down: a start, when nothing was operated at all and the job
    /// begins with a machine that runs; or a trip that was not foretold. From then on it stands as it was seen to stand: what is seen of it
    /// again is no news.
    /// </summary>
    /// <param name="steps">What was done; empty for what is seen as it stands.</param>
    /// <param name="allAlong">What was seen was so after each step, not only after the last.</param>
    /// <param name="unrecorded">What may have happened before that nobody wrote down, each with its share.</param>
    /// <param name="fit">How well what was seen fits where they lead to.</param>
    public (Arrival Arrival, double Fit) Operate(
        ImmutableArray<Step> steps,
        bool allAlong,
        IEnumerable<Unrecorded> unrecorded,
        Func<Arrival, double> fit
    )
    {
        var (best, most) = Tried(steps, steps);
        if (most < RoughShare && steps.Any(s => s.Seconds >= RoughFrom))
        {
            foreach (var factor in RoughFactors)
            {
                ImmutableArray<Step> roughly =
                [
                    .. steps.Select(s =>
                        s.Seconds >= RoughFrom ? s with { Seconds = Math.Min(factor * s.Seconds, StepRules.LongestWait) } : s
                    ),
                ];
                Consider(Tried(roughly, roughly), RoughShare);
            }
        }

        if (most < RoughShare && _struckLate is { } late)
        {
            var arrival = _trajectories.After(late, [steps[^1] with { Seconds = StruckLately * steps[^1].Seconds }]);
            Consider((arrival, fit(arrival)), RoughShare);
        }

        _struckLate = null;
        if (most < NotDoneShare && steps.Length > 0)
        {
            var standing = _standing ?? _trajectories.After(State, []);
            Consider((standing, fit(standing)), NotDoneShare);
        }

        var tripped = "";
        foreach (var happened in unrecorded.Where(u => most < u.Share))
        {
            if (Consider(Tried([.. happened.Course, .. steps], steps), happened.Share))
            {
                tripped = happened.Trips;
            }
        }

        if (tripped.Length > 0)
        {
            _trippedUnforetold = _trippedUnforetold.Add(tripped);
        }

        Move(best.State);
        _standing = best;
        return (best, Math.Max(most, MistakenShare));

        // What was the same all along is one event: it fits as the moment does that it fits least.
        (Arrival Arrival, double Fit) Tried(ImmutableArray<Step> done, ImmutableArray<Step> seen)
        {
            var arrival = _trajectories.After(State, done);
            var moments = allAlong ? Enumerable.Range(1, Math.Max(0, seen.Length - 1)) : [];
            return (arrival, moments.Select(left => fit(_trajectories.After(State, done[..^left]))).Append(fit(arrival)).Min());
        }

        bool Consider((Arrival Arrival, double Fit) other, double share)
        {
            var isBetter = share * other.Fit > most;
            if (isBetter)
            {
                (best, most) = (other.Arrival, share * other.Fit);
            }

            return isBetter;
        }
    }

    /// <summary>This device was seen to have tripped, and it did not foretell that: it says that it tripped for once, for nothing.</summary>
    public bool SaysItTrippedForOnce(string device) => _trippedUnforetold.Contains(device);

    /// <summary>It has tripped and stands so from now on, if it then shows what was seen; false where it does not, and nothing has moved.</summary>
    public bool HasTripped(Step trip, LookSeen seen)
    {
        var before = State;
        Operate([trip]);
        if (Seen(seen.Device, seen.Look) == seen.Answer)
        {
            _trippedUnforetold = _trippedUnforetold.Add(trip.Device);
            return true;
        }

        Move(before);
        return false;
    }

    /// <summary>Least time from something done to the next look or reading, s (common practice).</summary>
    private const double FetchingSeconds = 20;

    private const double RoughShare = 0.5,
        RoughFrom = 10;

    private static readonly double[] RoughFactors = [2, 0.5];

    /// <summary>Of a wait that it struck in no more than this may have been left: what follows from it, a trip, is then still to come.</summary>
    private const double StruckLately = 0.1;

    /// <summary>
    /// Share of operations that were not done as written (a button not quite pressed), and least fit of any: what is seen at one moment is
    /// one event, and all of it may have been written down wrongly at once (common practice: a few in a hundred).
    /// </summary>
    private const double NotDoneShare = 0.02,
        MistakenShare = 0.001;

    /// <summary>
    /// Buttons that were held for an operation are let go before anything else is done: nobody holds Start while looking for
    /// the meter. What has to be held during a reading is named with it. And it takes time.
    /// </summary>
    public void LetGo()
    {
        var released = WithButtonsReleased;
        var later = _beginning.HasDelays ? _trajectories.After(released, [Step.Meanwhile(FetchingSeconds)]).State : released;
        if (later.Rested is var rested && !ReferenceEquals(rested, State))
        {
            Move(rested);
        }
    }

    /// <summary>What was read says how large the fault is and, where it was a voltage, how high this panel's supply stands.</summary>
    /// <param name="quantity">What was read.</param>
    /// <param name="foretold">What was foretold of it.</param>
    /// <param name="observed">What the meter showed.</param>
    /// <param name="foretell">The same again, by what is known of the size now.</param>
    public void Narrow(Quantity quantity, Prediction foretold, double observed, Func<Prediction> foretell)
    {
        NarrowSize(foretell, observed);
        if (quantity.IsVolts())
        {
            _supply = _supply.NarrowedBy(foretold, observed);
        }
        else if (quantity == Quantity.Amps && foretold.Shared > 0)
        {
            _load = _load.NarrowedBy(foretold, observed);
        }
        else if (quantity == Quantity.Ohms)
        {
            _copper = _copper.NarrowedBy(foretold, observed);
        }
    }

    private void NarrowSize(Func<Prediction> foretell, double observed)
    {
        if (_larger is null)
        {
            return;
        }

        var known = _size;
        _size = known.NarrowedBy(
            guess =>
            {
                _size = guess;
                return foretell();
            },
            observed
        );
    }

    /// <summary>The joint has moved since it was last read: its size is not known again.</summary>
    /// <returns>What was known of it; null where nothing was.</returns>
    public FaultSize? BeginSizeAnew()
    {
        var known = _size;
        _size = FaultSize.Unknown(_size.Factor);
        return known == _size ? null : known;
    }

    /// <summary>It has not moved: what was known of its size holds.</summary>
    public void KeepSize(FaultSize known) => _size = known;

    private Network Network => _trajectories.Simulator.Network;

    private CircuitState WithButtonsReleased => _released ??= Release();

    private CircuitState Release()
    {
        var steps = new List<Step>();
        for (var i = 0; i < _healthy.Circuit.Devices.Length; i++)
        {
            var device = _healthy.Circuit.Devices[i];
            if (
                State.Devices[i].Position != device.Kind.InitialPosition(device)
                && device.Kind.Actuations(device).Any(a => a is { Returns: true, DeadOnly: false })
            )
            {
                steps.Add(Released(new Step(device.Tag, "")));
            }
        }

        return steps.Count == 0 ? State : _trajectories.After(State, steps).State;
    }

    private void Move(CircuitState state)
    {
        State = state;
        _standing = null;
        _released = null;
        _prepared.Clear();
    }

    private Step Released(Step held) => StepRules.Rested(_healthy.Circuit, held);

    private static CircuitState Settled(Trajectories trajectories, CircuitState state, ImmutableArray<Step> trial)
    {
        // Delays that ran are no difference.
        return trajectories.After(state, trial).State.Timeless;
    }
}
