using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// States that a reading can be taken in: live or isolated, something held, put elsewhere than it stands or reset before, wires lifted. Those first
/// that the suspicion points at.
/// </summary>
/// <param name="session">The diagnosis.</param>
/// <param name="job">The job as it stands.</param>
/// <param name="weighed">Hypotheses that are weighed.</param>
internal sealed class SetupsOnOffer(DiagnosisSession session, JobState job, WeighedHypotheses weighed)
{
    /// <summary>What is suspected less is not worth a set-up of its own, nor leads of its own.</summary>
    public const double LeastSuspicion = 0.05;

    /// <summary>
    /// Actuators that are thought of being held in one choice. A chain of twelve stations has two dozen buttons, and most of them tell the same.
    /// </summary>
    private const int MostHeldLive = 3,
        MostHeldDead = 6;

    /// <summary>Wires are lifted off no more devices than this, and no more single ones.</summary>
    private const int MostLifted = 2,
        MostLiftedWires = 3;

    /// <summary>Share of the suspicion on a button from which its cover comes off to press the block itself.</summary>
    private const double WorthACoverOff = 0.3;

    private readonly Circuit _circuit = session.Circuit;

    /// <summary>Devices that most hypotheses say stand where they should not (a tripped overload): reset before a try.</summary>
    public ImmutableArray<Step> Resets { get; } = [.. ToBeReset(session, weighed)];

    /// <summary>
    /// States that can be set up: nothing held, or one actuator held, or put elsewhere than it stands (a selector, a float, a limit).
    /// </summary>
    public IEnumerable<Setup> States(bool live)
    {
        var change =
            live == !job.IsIsolated ? SetupChange.None
            : live ? SetupChange.Energise
            : SetupChange.Isolate;
        yield return new Setup(change, [], !live);
        // Live, a Start is held; a Stop held live shows nothing that a Start not held does not.
        var actuators = _circuit.Devices.SelectMany(d =>
            d.Kind.Actuations(d)
                .Where(a => a.Returns || (Trial.IsSetFor(d, a) && a.Position != StandsAt(d)))
                .Where(a => !live || (!a.DeadOnly && d.Kind.Elements(d)[0].Role == ElementRole.NormallyOpen))
                .Where(a => !a.IsPastOperator || Suspicion(d.Tag) > WorthACoverOff)
                .Select(a => new Step(d.Tag, a.Position))
        );
        foreach (var held in MostSuspected(actuators, live ? MostHeldLive : MostHeldDead))
        {
            yield return live ? new Setup(change, [.. Resets, .. Before(held, change), held], false) : new Setup(change, [held], true);
        }
    }

    /// <summary>
    /// With wires off that are on now: off a whole device, or the one that halves what is suspected of leaking. None while something is lifted.
    /// </summary>
    public IEnumerable<Setup> Lifted() =>
        job.Lifted.Count > 0
            ? []
            : LiftedOffDevices()
                .Concat(
                    new LeakSplits(session.Compiled.Network, weighed)
                        .Best()
                        .Take(MostLiftedWires)
                        .Select(end => Dead with { LiftedEnd = end })
                );

    /// <summary>
    /// Wires lifted off the devices at whose ends the suspicion is divided between device and wires: nothing else tells a winding from the
    /// cable that feeds it.
    /// </summary>
    private IEnumerable<Setup> LiftedOffDevices() =>
        _circuit
            .Devices.Where(d => !d.Kind.IsStrip && !d.Kind.IsSupply)
            .Select(d =>
                (
                    Device: d.Tag,
                    Own: weighed.Live.Select((h, i) => weighed.Units[i] == d.Tag ? weighed.Weights[i] : 0).Sum(),
                    Near: Suspicion(d.Tag)
                )
            )
            .Where(d => d.Near > LeastSuspicion && d.Near - d.Own > Assessment.OpenShare * d.Near)
            .OrderByDescending(d => d.Near)
            .Take(MostLifted)
            .Select(d => Dead with { LiftedAt = d.Device });

    private Setup Dead => new(job.IsIsolated ? SetupChange.None : SetupChange.Isolate, [], true);

    /// <summary>Where a device stands, by what is possible.</summary>
    public string StandsAt(Device device) => weighed.Standing.State.PositionOf(_circuit, device);

    /// <summary>
    /// What has to be done before a Start that is held does anything: the control switched on, a selector put to where it counts. It has dropped
    /// out when the circuit was isolated, and where holding the Start alone moves nothing it may not have been done yet.
    /// </summary>
    private ImmutableArray<Step> Before(Step held, SetupChange change) =>
        session.Compiled.RunUp.Starts.FirstOrDefault(s => s.Act.Device == held.Device) is { Prepare: { IsEmpty: false } before }
        && (change == SetupChange.Energise || weighed.Standing.Foresee([held]).Seen == weighed.Standing.Foresee([]).Seen)
            ? before
            : [];

    /// <summary>The steps whose devices, and what is landed on them, the suspicion points at most.</summary>
    public IEnumerable<Step> MostSuspected(IEnumerable<Step> steps, int most) =>
        steps.OrderByDescending(s => Suspicion(s.Device)).Take(most);

    private double Suspicion(string tag)
    {
        var near = _circuit.Conductors.Where(c => c.From.Device == tag || c.To.Device == tag).Select(c => c.Id).Append(tag).ToHashSet();
        return Math.Round(weighed.Live.Select((h, i) => near.Contains(weighed.Units[i]) ? weighed.Weights[i] : 0).Sum(), 6);
    }

    private static IEnumerable<Step> ToBeReset(DiagnosisSession session, WeighedHypotheses weighed)
    {
        for (var i = 0; i < session.Circuit.Devices.Length; i++)
        {
            var device = session.Circuit.Devices[i];
            var rest = device.Kind.InitialPosition(device);
            var name = device.Kind.Positions(device)[rest];
            if (
                !session.Compiled.Isolation.Points.Contains(device.Tag)
                && StepRules.IsReset(session.Circuit, new Step(device.Tag, name))
                && weighed.Live.Select((h, k) => h.State.Devices[i].Position != rest ? weighed.Weights[k] : 0).Sum() > 0.3
            )
            {
                yield return new Step(device.Tag, name);
            }
        }
    }
}
