using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;
using Fehler.Data;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Circuits;

/// <summary>The network of a state as a SPICE netlist: for anybody who wants to check a reading with another program.</summary>
internal static class NetlistEndpoint
{
    private const int MostFaults = 4;

    /// <summary>What is asked for.</summary>
    /// <param name="Analysis"><c>ac</c> (the default), <c>dc</c> or <c>ohms</c>; with from and to the default is ohms.</param>
    /// <param name="Steps"><c>S2:pressed,S2:released,wait:30</c>, from rest with the supply on.</param>
    /// <param name="Fault">Ids as the fault list has them, up to four, separated by commas.</param>
    /// <param name="Variant">Variant of the first of them; its first when left out.</param>
    /// <param name="From">Terminal of the first lead, for ohms.</param>
    /// <param name="To">Terminal of the second lead, for ohms.</param>
    /// <param name="Isolated">Isolated after the steps; ohms always are.</param>
    /// <param name="Held">Held by hand then, dead: <c>KM1:in</c>.</param>
    /// <param name="Lifted">
    /// Conductors that are lifted, separated by commas: their ids, each with the terminal, e.g. <c>4.2@KM1:A1</c>; without one, off its first.
    /// </param>
    private sealed record Asked(
        string? Analysis = null,
        string? Steps = null,
        string? Fault = null,
        string? Variant = null,
        string? From = null,
        string? To = null,
        bool Isolated = false,
        string? Held = null,
        string? Lifted = null
    );

    public static void MapNetlist(this RouteGroupBuilder circuits) =>
        circuits
            .MapGet("{id:guid}/netlist", Netlist)
            .WithName("downloadNetlist")
            .WithSummary("SPICE netlist of a state, with or without faults: volts AC, volts DC or ohms")
            .WithDescription(
                "'steps' are device:position pairs and waits separated by commas, e.g. S2:pressed,S2:released,wait:30. 'analysis' is ac, dc "
                    + "or ohms; ohms take 'from' and 'to' and are isolated, with what is 'held' by hand, e.g. KM1:in, and the conductors "
                    + "that are 'lifted', e.g. 4.2@KM1:A1. 'fault' takes any ids of the fault list, up to four."
            )
            .ProducesProblem(404)
            .ProducesProblem(422);

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Netlist(
        Guid id,
        [AsParameters] Asked asked,
        CircuitStore store,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is not { } found)
        {
            return NotHere.Circuit();
        }

        var text = await Task.Run(() => Written(found.Compiled, asked), cancellation);
        return TypedResults.File(Encoding.UTF8.GetBytes(text), "text/plain", $"{found.Row.Tag}.cir");
    }

    private static string Written(CompiledCircuit compiled, Asked asked)
    {
        var analysis = asked.Analysis ?? (asked.From is not null && asked.To is not null ? "ohms" : "ac");
        if (analysis is not ("ac" or "dc" or "ohms"))
        {
            throw new RefusedException($"'{analysis}' is no analysis; write ac, dc or ohms.");
        }

        var network = compiled.Network.With(Faults(compiled, asked));
        var simulator = new Simulator(network);
        var (steps, held) = (Steps(compiled.Circuit, asked.Steps), Steps(compiled.Circuit, asked.Held));
        var state = simulator.Do(simulator.Start().State, steps).State;
        state = state with { Lifted = [.. state.Lifted, .. Lifted(compiled.Circuit, asked.Lifted)] };
        if (asked.Isolated || analysis == "ohms")
        {
            state = simulator.Arrange(simulator.Do(state, compiled.Isolation.Off).State, held);
        }
        else if (held.Count > 0)
        {
            throw new RefusedException(
                "What is held by hand is held on an isolated circuit: add isolated=true, or write it among the steps."
            );
        }

        return analysis switch
        {
            "dc" => SpiceNetlist.Dc(network, state),
            "ohms" => SpiceNetlist.Ohms(network, state, Terminal(network, asked.From), Terminal(network, asked.To)),
            _ => SpiceNetlist.Ac(network, state),
        };
    }

    private static ImmutableArray<Alteration> Faults(CompiledCircuit compiled, Asked asked)
    {
        var ids = Listed(asked.Fault);
        return ids.Length > MostFaults
            ? throw new RefusedException($"{ids.Length} faults are too many at once; at most {MostFaults} are taken.")
            :
            [
                .. ids.SelectMany(
                    (id, k) =>
                        compiled.Faults.Find(id, k == 0 ? asked.Variant : null)?.Alterations
                        ?? throw new RefusedException(
                            $"The circuit has no fault mode '{id}'{(k == 0 && asked.Variant is { } v ? $" of variant '{v}'" : "")}; its faults "
                                + "are listed under /faults beside this address."
                        )
                ),
            ];
    }

    private static List<Step> Steps(Circuit circuit, string? text)
    {
        var steps = Listed(text).Select(Step).ToList();
        StepRules.Require(circuit, steps);
        return steps;
    }

    private static Step Step(string text) =>
        !TerminalId.TryParse(text, out var at)
            ? throw new RefusedException($"'{text}' is not a step; write device:position, e.g. S2:pressed, or wait:30.")
        : at.Device != "wait" ? new Step(at.Device, at.Name)
        : double.TryParse(at.Name, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var seconds)
            ? Core.Circuits.Step.Wait(seconds)
        : throw new RefusedException($"'{text}' is not a wait; write the seconds, e.g. wait:30.");

    private static IEnumerable<ConductorEnd> Lifted(Circuit circuit, string? text) =>
        Listed(text)
            .Select(item =>
            {
                var (id, at) = item.Split('@', 2) is [var before, var after] ? (before, after) : (item, "");
                var conductor =
                    circuit.Conductors.FirstOrDefault(c => c.Id == id)
                    ?? throw new RefusedException($"'{id}' is no conductor of this circuit; they are in its JSON, e.g. 4.2.");
                return at.Length == 0 || at == conductor.From.ToString() ? new ConductorEnd(id, conductor.From)
                    : at == conductor.To.ToString() ? new ConductorEnd(id, conductor.To)
                    : throw new RefusedException($"Conductor {id} does not end at {at}; it goes from {conductor.From} to {conductor.To}.");
            });

    private static string[] Listed(string? text) =>
        (text ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static TerminalId Terminal(Network network, string? text) =>
        TerminalId.TryParse(text ?? "", out var id) && network.Has(id)
            ? id
            : throw new RefusedException($"'{text}' is not a terminal of this circuit; write device:terminal, e.g. KM1:A1.");
}
