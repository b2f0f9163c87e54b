using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Families;
using Fehler.Desk;
using Fehler.Web.Circuits;

namespace Fehler.Web.Setup;

/// <summary>A circuit that is being set up: its file, to be sent back with the next edit, and everything that is shown of it.</summary>
/// <param name="File">The circuit file.</param>
/// <param name="Circuit">Drawing, devices, findings.</param>
/// <param name="Proposals">Changes that what is described so far suggests.</param>
public sealed record SetupView(JsonElement File, CircuitView Circuit, ImmutableArray<ProposedEdit> Proposals);

/// <summary>A circuit file as it stands.</summary>
public sealed record SetupFile(JsonElement File);

/// <summary>An edit to a circuit file.</summary>
public sealed record SetupEdit(JsonElement File, CircuitEdit Edit);

/// <summary>Steps on a circuit file that is not in the register yet.</summary>
public sealed record SetupOperation(JsonElement File, ImmutableArray<Step> Steps);

/// <summary>What was counted in a panel.</summary>
/// <param name="Counts">How many, by the id of the sort; what nobody counted is left out.</param>
/// <param name="CoilVolts">What the label of a contactor's coil says, V; 0 when nobody read it.</param>
public sealed record CountedInPanel(ImmutableSortedDictionary<string, int>? Counts, double CoilVolts);

/// <summary>A starter that has what was counted.</summary>
/// <param name="Options">For building it, as the family's options.</param>
/// <param name="Circuit">Its drawing.</param>
/// <param name="Differs">What it has otherwise than was counted.</param>
public sealed record CountedMatch(
    string Family,
    string Name,
    string Description,
    JsonElement Options,
    CircuitView Circuit,
    ImmutableArray<string> Differs
);

/// <summary>What fits a count, the likeliest first, and what to count next to tell them apart.</summary>
public sealed record CountedView(ImmutableArray<CountedMatch> Matches, PanelSort? TellsApart);
