using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>A journal being written, in the words an electrician would use.</summary>
internal sealed partial class Journal(Circuit circuit)
{
    private readonly List<JournalEntry> _entries = [];

    public Journal Add(JournalEntry entry)
    {
        _entries.Add(entry with { Id = entry.Id == Guid.Empty ? Guid.NewGuid() : entry.Id, Sequence = _entries.Count + 1 });
        return this;
    }

    /// <summary>Something was done and this was seen, written "KM1 in, M1 runs".</summary>
    public Journal Did(Step step, string seen) => Add(new OperationSeen([step], Seen(seen)));

    public Journal Looked(string device, string look, string answer) => Add(new LookSeen(device, look, answer));

    public Journal Volts(string from, string to, double volts, params Step[] held) =>
        Add(new Reading(Quantity.Volts, TerminalId.Parse(from), TerminalId.Parse(to), [.. held], ReadingValue.Of(volts)));

    public Journal DcVolts(string from, string to, double volts, params Step[] held) =>
        Add(new Reading(Quantity.DcVolts, TerminalId.Parse(from), TerminalId.Parse(to), [.. held], ReadingValue.Of(volts)));

    /// <summary>The clamp around the lead at a terminal.</summary>
    public Journal Amps(string at, double amps, params Step[] held) =>
        Add(new Reading(Quantity.Amps, TerminalId.Parse(at), TerminalId.Parse(at), [.. held], ReadingValue.Of(amps)));

    /// <summary>Ohms; null is OL.</summary>
    public Journal Ohms(string from, string to, double? ohms, params Step[] held) =>
        Add(
            new Reading(
                Quantity.Ohms,
                TerminalId.Parse(from),
                TerminalId.Parse(to),
                [.. held],
                ohms is { } value ? ReadingValue.Of(value) : new ReadingValue(ReadingKind.OverLimit)
            )
        );

    public Journal Beep(string from, string to, bool beeps, params Step[] held) =>
        Add(
            new Reading(
                Quantity.Continuity,
                TerminalId.Parse(from),
                TerminalId.Parse(to),
                [.. held],
                new ReadingValue(beeps ? ReadingKind.Beep : ReadingKind.Silent)
            )
        );

    public Journal Dead() => Add(new Isolated(["Q1"])).Add(new ProvedDead(true, true));

    public JobState State => JobState.Of(circuit.Compiled(), _entries);

    /// <summary>The diagnosis, with every suspect brought to the end of the journal.</summary>
    public DiagnosisSession Followed()
    {
        var session = new DiagnosisSession(circuit.Compiled());
        session.Follow(State);
        session.BringAll();
        return session;
    }

    public DiagnosisResult Diagnose(Strategy strategy = Strategy.MostTelling, Without without = Without.None) =>
        new DiagnosisSession(circuit.Compiled()).Diagnose(State, strategy, without);

    /// <summary>What is asked before a voltage counts.</summary>
    public string? Doubt(string from, string to, double volts) =>
        new DiagnosisSession(circuit.Compiled()).Doubt(
            State,
            new Reading(Quantity.Volts, TerminalId.Parse(from), TerminalId.Parse(to), [], ReadingValue.Of(volts))
        );

    /// <summary>"KM1 in, M1 hums, does not start": a comma parts two devices where a tag follows.</summary>
    public static ImmutableSortedDictionary<string, string> Seen(string text) =>
        BetweenDevices()
            .Split(text)
            .ToImmutableSortedDictionary(
                s => s[..s.IndexOf(' ', StringComparison.Ordinal)],
                s => s[(s.IndexOf(' ', StringComparison.Ordinal) + 1)..]
            );

    [GeneratedRegex(", (?=[A-Z]+[0-9]+ )")]
    private static partial Regex BetweenDevices();
}
