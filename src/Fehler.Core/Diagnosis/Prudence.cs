using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// What a careful electrician does not do whatever it would tell, and what is risked by the rest. All of it common practice.
/// </summary>
/// <param name="circuit">The circuit.</param>
/// <param name="job">The job as it stands.</param>
/// <param name="weighed">Hypotheses that are weighed.</param>
internal sealed class Prudence(Circuit circuit, JobState job, WeighedHypotheses weighed)
{
    /// <summary>
    /// Most resets before something was repaired: a device that trips again says what it says, and every attempt heats the motor.
    /// </summary>
    private const int MostResets = 2;

    /// <summary>
    /// Probability of a short circuit above the usual times this, minutes: what closing onto it may cost. What merely tripped is reset and
    /// tried.
    /// </summary>
    private const double OntoAShortMinutes = 10,
        UsualShare = 0.25;

    /// <summary>How likely a motor has to stand and hum before nobody waits beside it.</summary>
    private const double StallsAbove = 0.5;

    /// <summary>
    /// What a reading beside a motor that hums or runs on two lines is taken to cost more, minutes, and as much again for each one before it: it
    /// heats all the while, and is better stopped and measured dead. The clamp, which tells most there, is on and off in a moment, but where a
    /// Start is held for it the motor is thrown onto the line once more.
    /// </summary>
    private const double StrainMinutes = 2;

    private readonly double _ontoAShort =
        OntoAShortMinutes * Math.Max(0, weighed.Share(h => h is { IsRepaired: false, Fault.IsShort: true }) - UsualShare);

    private readonly bool _isResetEnough =
        job.Valid.Reverse()
            .TakeWhile(e => e is not Repair)
            .OfType<OperationSeen>()
            .SelectMany(o => o.Steps)
            .Count(s => StepRules.IsReset(circuit, s)) >= MostResets;

    private readonly double _strain = StrainMinutes * StrainedBefore(job);

    private readonly bool _hummed =
        job.Valid.OfType<OperationSeen>().LastOrDefault() is { } last
        && last.Seen.Any(s => circuit.FindDevice(s.Key)?.Kind.IsStalled(s.Value) == true);

    /// <summary>What runs on two lines is stopped: nobody presses its Start to see what that does.</summary>
    private readonly bool _isStrained = weighed.Share(h => h.Strains(Setup.AsItIs)) > StallsAbove;

    /// <summary>Whether these steps may be asked for.</summary>
    public bool Allows(ImmutableArray<Step> steps) =>
        !(_isResetEnough && HasReset(steps)) && !WaitsBesideAStall(steps) && !(_isStrained && steps.Any(IsStart));

    private bool IsStart(Step step) =>
        circuit.FindDevice(step.Device) is { } device
        && device.Kind.Elements(device) is [{ Role: ElementRole.NormallyOpen }, ..]
        && device.Kind.Actuations(device).Any(a => a is { Returns: true, DeadOnly: false } && a.Position == step.Position);

    /// <summary>What is risked by a reading, minutes.</summary>
    public double Risk(Quantity quantity, Setup setup) =>
        Risk(setup, setup.Held)
        + (
            quantity.IsLive() && setup.Change == SetupChange.None
                ? (_strain + (quantity.IsAmps() ? 0 : StrainMinutes)) * weighed.Share(h => h.Strains(setup))
                : 0
        );

    /// <summary>
    /// Readings for which the motor has been strained: those while it ran on as it was, and each for which a Start was held since it could cool.
    /// </summary>
    private static int StrainedBefore(JobState job)
    {
        var sinceCold = job.Valid.Reverse().TakeWhile(e => e is not (Isolated or Energised)).ToList();
        var sinceMoved = sinceCold.TakeWhile(e => e is not OperationSeen { Steps.IsEmpty: false }).ToList();
        return sinceCold.OfType<Reading>().Count(r => r.Quantity.IsLive() && !r.Held.IsEmpty)
            + sinceMoved.OfType<Reading>().Count(r => r.Quantity.IsLive() && r.Held.IsEmpty && !r.Quantity.IsAmps());
    }

    /// <summary>
    /// What is risked by a set-up or by steps, minutes: after a short circuit insulation comes before closing onto it again, be it by the
    /// supply, a reset or a Start that is held for a reading.
    /// </summary>
    public double Risk(Setup setup, ImmutableArray<Step> steps) =>
        setup.Change == SetupChange.Energise || HasReset(steps) || (!setup.Dead && !setup.Held.IsEmpty) ? _ontoAShort : 0;

    private bool HasReset(ImmutableArray<Step> steps) => steps.Any(s => StepRules.IsReset(circuit, s));

    /// <summary>Nobody waits beside a motor that stands and hums, or has just done so: it burns within a minute.</summary>
    private bool WaitsBesideAStall(ImmutableArray<Step> steps) =>
        steps.Length > 0 && steps[^1].Device.Length == 0 && (_hummed || weighed.Share(h => h.Stalls([.. steps.SkipLast(1)])) > StallsAbove);
}
