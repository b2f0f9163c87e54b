using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>What has to be done before a proposed test can be made.</summary>
public static class WhatComesFirst
{
    /// <summary>The safety step that comes first; null when the test can be made now.</summary>
    public static SafetyStep? Before(JobState job, Proposal proposal) =>
        proposal switch
        {
            { Kind: ProposalKind.Reading } when !proposal.Quantity.IsLive() => SafetyRules.BeforeDead(job),
            { Setup.Change: SetupChange.Isolate } => SafetyRules.BeforeDead(job),
            { Setup.Change: SetupChange.Energise } => SafetyStep.SwitchOn,
            { Kind: ProposalKind.Look } => null,
            _ => SafetyRules.BeforeLive(job),
        };
}
