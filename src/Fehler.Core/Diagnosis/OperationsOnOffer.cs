using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>What can be done and watched now: a glance, waiting, starts and stops, and switching off what hums.</summary>
/// <param name="session">The diagnosis.</param>
/// <param name="job">The job as it stands.</param>
/// <param name="weighed">Hypotheses that are weighed.</param>
/// <param name="setups">States that can be set up.</param>
/// <param name="prudence">What a careful electrician leaves.</param>
/// <param name="cost">What each operation costs.</param>
internal sealed class OperationsOnOffer(
    DiagnosisSession session,
    JobState job,
    WeighedHypotheses weighed,
    SetupsOnOffer setups,
    Prudence prudence,
    CostModel cost
)
{
    /// <summary>Buttons that are thought of being pressed in one choice: those that the suspicion points at first.</summary>
    private const int MostOperated = 4;

    private readonly Circuit _circuit = session.Circuit;

    /// <summary>
    /// How it stands now. What was held for a reading may have moved something, and nobody has said what: a glance tells what a reading
    /// of each wire would.
    /// </summary>
    public IEnumerable<Candidate> AsItStands()
    {
        var moved = job.Valid.LastOrDefault(e => e is Reading { Held.IsEmpty: false } or OperationSeen or Isolated or Energised or Repair);
        if (moved is not Reading { Alone: false } || job.IsIsolated)
        {
            yield break;
        }

        yield return Watching(
            new Setup(SetupChange.None, [], false),
            [],
            [],
            CostModel.GlanceMinutes,
            "Touch nothing and look how it stands"
        );
    }

    /// <summary>What has not been tried since anything was last changed.</summary>
    public IEnumerable<Candidate> Tries()
    {
        if (job.Lifted.Count > 0)
        {
            yield break;
        }

        var energise = job.IsIsolated ? session.Compiled.Isolation.On : [];
        var setup = new Setup(job.IsIsolated ? SetupChange.Energise : SetupChange.None, [], false);
        foreach (var steps in Trials().Where(s => !IsDone(s) && prudence.Allows(s)))
        {
            yield return Watching(
                setup,
                energise,
                steps,
                cost.OfOperation(job.IsIsolated) + steps.Sum(s => s.Seconds) / 60 + prudence.Risk(setup, steps),
                steps.All(s => s.Device.Length == 0) ? $"Touch nothing, {Words.Of(steps)} and look" : $"Operate: {Words.Of(steps)}"
            );
        }
    }

    /// <summary>
    /// What switches a motor off that stands and hums: the button let go that is held, a Stop, what was put where it runs put back. Null where,
    /// as far as is known, none of it would or it has just been tried: then it is isolated.
    /// </summary>
    /// <param name="humming">Tags of motors that stand and hum.</param>
    public Candidate? SwitchingOff(string humming)
    {
        ImmutableArray<Step> done = [.. job.Valid.OfType<OperationSeen>().SelectMany(o => o.Steps)];
        // What a Start was held for since has to be switched off anew.
        ImmutableArray<Step> tried = [.. job.Valid.SelectMany(e => e is OperationSeen o ? o.Steps : (e as Reading)?.Held ?? [])];
        IEnumerable<ImmutableArray<Step>> ways =
        [
            .. StepRules.Released(_circuit, done) is { } letGo
                ?
                [
                    [letGo],
                ]
                : Array.Empty<ImmutableArray<Step>>(),
            .. session.Compiled.RunUp.Ends.Where(e => !tried.TakeLast(e.Length).SequenceEqual(e)),
        ];
        return ways.FirstOrDefault(w => !weighed.Standing.Stalls(w)) is { IsDefault: false } way
            ? Watching(Setup.AsItIs, [], way, cost.OfOperation(false), $"Switch it off: {Words.Of(way)}") with
            {
                Why = $"{humming} stands and hums, and burns within a minute. What comes next is measured on a stopped machine.",
            }
            : null;
    }

    /// <summary>Something is done, or nothing, and the devices are watched.</summary>
    private Candidate Watching(Setup setup, ImmutableArray<Step> before, ImmutableArray<Step> steps, double minutes, string text)
    {
        ImmutableArray<Step> all = [.. before, .. steps];
        var foreseen = new Arrival[weighed.Live.Length];
        AtOnce.For(weighed.Live.Length, h => foreseen[h] = weighed.Live[h].Foresee(all));
        string[] seen = [.. foreseen.Select(a => a.Seen)];
        var good = session.Healthy.Foresee(all);
        return new Candidate(ProposalKind.Operation, setup, weighed.Grouping.Gain(seen), minutes)
        {
            Steps = steps,
            Text = text,
            Shown = seen,
            GoodText = good.Seen,
            Foreseen = foreseen,
            GoodArrival = good,
        };
    }

    /// <summary>The same has been tried since anything was last changed: it shows the same again, whatever was looked at.</summary>
    private bool IsDone(ImmutableArray<Step> steps)
    {
        var since = job.Valid.Reverse().TakeWhile(e => e is not (Repair or Tightened or WireLanded or Energised)).Reverse();
        var done = since.OfType<OperationSeen>().SelectMany(o => o.Steps).ToList();
        return Enumerable
            .Range(0, Math.Max(0, done.Count - steps.Length + 1))
            .Any(i => steps.SequenceEqual(done.Skip(i).Take(steps.Length)));
    }

    /// <summary>
    /// Waiting, while something is under way; starts with what has to be done before them, once shortly and once for a while; and Stops.
    /// </summary>
    private IEnumerable<ImmutableArray<Step>> Trials()
    {
        if (!job.IsIsolated && !session.Healthy.IsAtRest)
        {
            yield return [Step.Wait(30)];
        }

        foreach (var start in session.Compiled.RunUp.Starts.Where(s => s.LetGo is null))
        {
            // What stays where it is put: put there, left so for a while, and put back.
            var isOn = setups.StandsAt(_circuit.Device(start.Act.Device)) == start.Act.Position;
            ImmutableArray<Step> run = [.. setups.Resets, .. start.Prepare, start.Act];
            IEnumerable<ImmutableArray<Step>> ways = isOn
                ?
                [
                    [start.Back(_circuit)],
                ]
                : [run, [.. run, Step.Wait(120)]];
            foreach (var way in ways)
            {
                yield return way;
            }
        }

        var starts = session.Compiled.RunUp.Starts.ToLookup(s => s.Act.Device);
        var buttons = _circuit.Devices.SelectMany(d =>
            d.Kind.Actuations(d).Where(a => a is { Returns: true, DeadOnly: false }).Select(a => new Step(d.Tag, a.Position))
        );
        foreach (var held in setups.MostSuspected(buttons, MostOperated))
        {
            var device = _circuit.Device(held.Device);
            var rest = StepRules.Rested(_circuit, held);
            var start = starts[device.Tag].FirstOrDefault();
            ImmutableArray<Step> prepare = start?.Prepare ?? [];
            if (device.Kind.Elements(device)[0].Role != ElementRole.NormallyOpen)
            {
                yield return [held, rest];
                continue;
            }

            if (start is { Holds: false })
            {
                // What runs only while it is held is looked at while it is held.
                yield return [.. setups.Resets, .. prepare, held];
                continue;
            }

            yield return [.. setups.Resets, .. prepare, held, rest];
            yield return [.. setups.Resets, .. prepare, held, rest, Step.Wait(120)];
        }
    }
}
