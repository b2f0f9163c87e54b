using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
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
