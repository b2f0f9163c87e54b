namespace Fehler.Core.Editing;

/// <summary>Edits in a few words, as a colleague would say how a panel differs.</summary>
public static class EditWords
{
    public static string Of(CircuitEdit edit) =>
        edit switch
        {
            InsertBeside e => $"{e.Tag} {e.Contact} is there, {(e.How == Beside.Parallel ? "across" : "in series with")} {e.Part}",
            RemovePart e => $"{e.Part} is not there",
            RenameDevice e => $"{e.Tag} is called {e.NewTag}",
            RenameContact e => $"contact {e.Contact} of {e.Tag} is {e.NewContact}",
            RenumberWire e => $"wire {e.Wire} is numbered {e.NewWire}",
            RenumberWires e => $"wires are numbered {e.First}, {e.First + e.Step} and so on",
            SetParameter e => $"{e.Name} of {e.Tag} is {e.Value}",
            DescribeDevice e => $"{e.Tag} is {e.Function}, at {e.Location}",
            SetPlace e => $"{e.Name} is {FormattableString.Invariant($"{e.CableMetres:0.#}")} m away",
            RouteChained e => $"wire {e.Wire} runs {string.Join(" – ", e.Terminals)}",
            RouteOverStrip e => $"wire {e.Wire} runs over {e.Strip}",
            MoveEnd e => $"{e.Conductor} is on {e.Terminal}",
            _ => "its description",
        };
}
