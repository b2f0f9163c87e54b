using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Core.Upkeep;

/// <summary>A rule of upkeep as a list over many circuits shows it.</summary>
public sealed record OutlinedRule(
    string Id,
    string Title,
    int Months,
    double Minutes,
    UpkeepState State,
    string Source,
    ImmutableArray<string> Devices,
    bool IsInFunctionTest,
    bool NeedsLoad
);

/// <summary>
/// What lists over hundreds of circuits need of one, without its description being read: rules of upkeep, parts, isolation.
/// </summary>
/// <param name="Rules">What it needs done from time to time.</param>
/// <param name="Parts">What is fitted in it.</param>
/// <param name="Isolation">The points at which it is isolated.</param>
/// <param name="TestSteps">Steps of its function test.</param>
public sealed record CircuitOutline(
    ImmutableArray<OutlinedRule> Rules,
    ImmutableArray<InstalledPart> Parts,
    ImmutableArray<string> Isolation,
    int TestSteps
)
{
    /// <summary>Changed when a circuit's outline is drawn otherwise than before, so that kept ones are drawn anew.</summary>
    public const int Version = 1;

    /// <summary>What one step of a function test takes, minutes (common practice).</summary>
    public const double MinutesAStep = 0.5;

    /// <summary>The outline of a circuit.</summary>
    public static CircuitOutline Of(CompiledCircuit compiled) =>
        new(
            [
                .. compiled.Upkeep.All.Select(u => new OutlinedRule(
                    u.Rule.Id,
                    u.Rule.Title.ToString(),
                    u.Rule.Months,
                    u.Minutes,
                    u.Rule.State,
                    u.Rule.Source,
                    u.Devices,
                    u.Rule.IsInFunctionTest,
                    u.Rule.NeedsLoad
                )),
            ],
            compiled.InstalledParts.All,
            compiled.Isolation.Points,
            compiled.FunctionTest.Steps.Length
        );
}
