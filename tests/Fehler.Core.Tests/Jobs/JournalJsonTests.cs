using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Jobs;

/// <summary>Journal entries are an open format: what is written is read again as it was.</summary>
public class JournalJsonTests
{
    private static readonly ImmutableSortedDictionary<string, string> Seen = ImmutableSortedDictionary<string, string>.Empty.Add(
        "KM1",
        "in"
    );

    public static TheoryData<string, JournalEntry> Entries =>
        new()
        {
            { "complaint", new Complaint("does not start") },
            { "operation", new OperationSeen([new Step("S2", "pressed"), Step.Wait(5)], Seen) },
            {
                "operation",
                new OperationSeen([new Step("S2", "pressed")], Seen) { AllAlong = true }
            },
            { "look", new LookSeen("F2", "flag", "tripped") },
            { "liveWorkAcknowledged", new LiveWorkAcknowledged() },
            { "isolated", new Isolated(["Q1"]) },
            { "provedDead", new ProvedDead(true, true) },
            { "energised", new Energised() },
            { "lockHung", new LockHung() },
            { "lockTaken", new LockTaken("Anna", "left the site") },
            {
                "reading",
                new Reading(
                    Quantity.Ohms,
                    TerminalId.Parse("KM1:A1"),
                    TerminalId.Parse("KM1:A2"),
                    [new Step("KM1", "in")],
                    new ReadingValue(ReadingKind.OverLimit),
                    "M-2"
                )
            },
            {
                "readingAsTyped",
                new ReadingAsTyped(Quantity.Volts, TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"), [], "0,3 kV", "M-2")
            },
            { "circuitCorrected", new CircuitCorrected(1, 2, "wire 5 is numbered 15") },
            { "carriedIn", new CarriedIn("panel 4") },
            { "wireLifted", new WireLifted("5.1", TerminalId.Parse("KM1:A1")) },
            { "told", new Told(Circumstance.Burnt, "KM1") },
            { "wireLanded", new WireLanded("5.1") },
            { "tightened", new Tightened(TerminalId.Parse("S2:14"), true) },
            { "conductorsCounted", new ConductorsCounted(TerminalId.Parse("S2:14"), 1) },
            {
                "reading",
                new Reading(Quantity.Ohms, TerminalId.Parse("KM1:A1"), TerminalId.Parse("S2:14"), [], ReadingValue.Of(0.2))
                {
                    FreeEnd = "5.1",
                }
            },
            {
                "reading",
                new Reading(Quantity.Ohms, TerminalId.Parse("F1:1"), TerminalId.Parse("F1:2"), [], ReadingValue.Of(0.1)) { Alone = true }
            },
            { "tripTimed", new TripTimed("F2", 16, 190) },
            { "counterRead", new CounterRead("M1", Counter.Hours, 12500) },
            { "makeshift", new Makeshift(MakeshiftKind.Bridge, "KM1 13-14") },
            { "makeshiftUndone", new MakeshiftUndone(MakeshiftKind.Bridge, "KM1 13-14") },
            { "meterChecked", new MeterChecked(false, "clamp") },
            { "finding", new Finding("KM1", "KM1/A1-A2-open", "coil open") },
            { "repair", new Repair("KM1", "coil replaced", ["coil 230 V"], 25, "overvoltage", "pulled out live") },
            { "functionTested", new FunctionTested("rest", true, Seen) },
            { "restored", new Restored("covers") },
            { "note", new Note("humid") },
            { "photo", new Photo(Guid.Parse("0b7a5fd8-1d5c-4f0a-9f0b-7c1a0c8d2f12"), "burnt clamp") },
            { "struckOut", new StruckOut(Guid.Parse("0b7a5fd8-1d5c-4f0a-9f0b-7c1a0c8d2f11"), "slipped") },
            { "closed", new Closed(CloseOutcome.RepairedAndProved, "", 40) },
        };

    [Theory]
    [MemberData(nameof(Entries))]
    public void Every_entry_is_read_as_it_was_written_and_names_its_type(string type, JournalEntry entry)
    {
        var stamped = entry with
        {
            Id = Guid.NewGuid(),
            Sequence = 7,
            At = new DateTimeOffset(2026, 3, 1, 8, 30, 0, TimeSpan.Zero),
            Who = "R. Halvar",
        };
        var json = JournalJson.Write(stamped);
        JsonDocument.Parse(json).RootElement.GetProperty("type").GetString().ShouldBe(type);
        JournalJson.Write(JournalJson.Read(json)).ShouldBe(json);
        JournalJson.Read(json).GetType().ShouldBe(entry.GetType());
    }

    [Fact]
    public void Every_kind_of_entry_is_covered_here() =>
        Entries
            .Select(e => e.Data.Item2.GetType())
            .Distinct()
            .Count()
            .ShouldBe(typeof(JournalEntry).Assembly.GetTypes().Count(t => t.IsSubclassOf(typeof(JournalEntry))));

    [Fact]
    public void The_type_may_stand_anywhere_and_terminals_are_text()
    {
        var entry = (WireLifted)JournalJson.Read("""{"conductor":"2.1","end":"S1:21","type":"wireLifted"}""");
        entry.End.ShouldBe(new TerminalId("S1", "21"));
    }

    [Theory]
    [InlineData("""{"type":"reading","quantity":"volts","from":"S1","to":"INC:N","held":[],"value":{"kind":"number","number":1}}""")]
    [InlineData("""{"type":"reading","quantity":"watts","from":"S1:21","to":"INC:N","held":[],"value":{"kind":"number","number":1}}""")]
    [InlineData("""{"type":"reading","quantity":"volts","from":"S1:21","to":"INC:N","held":[],"value":{"kind":"number","number":"1"}}""")]
    [InlineData("""{"type":"reading","quantity":"volts","from":"S1:21","held":[],"value":{"kind":"number","number":1}}""")]
    [InlineData("""{"type":"note","text":null}""")]
    public void What_is_no_entry_is_refused(string json) => Should.Throw<JsonException>(() => JournalJson.Read(json));

    [Theory]
    [InlineData(230, Quantity.Volts, "230 V")]
    [InlineData(0.34, Quantity.Volts, "0.34 V")]
    [InlineData(12.35, Quantity.Volts, "12.4 V")]
    [InlineData(560, Quantity.Ohms, "560 Ω")]
    [InlineData(4700, Quantity.Ohms, "4.7 kΩ")]
    [InlineData(2_200_000, Quantity.Ohms, "2.2 MΩ")]
    public void Numbers_are_shown_with_their_unit_and_as_many_digits_as_a_meter_has(double number, Quantity quantity, string shown) =>
        ReadingText.Show(ReadingValue.Of(number), quantity).ShouldBe(shown);

    [Theory]
    [InlineData(ReadingKind.OverLimit, "OL")]
    [InlineData(ReadingKind.Full, "full")]
    [InlineData(ReadingKind.Beep, "beep")]
    [InlineData(ReadingKind.Silent, "no beep")]
    [InlineData(ReadingKind.Unsteady, "unsteady")]
    public void Words_are_shown_as_words(ReadingKind kind, string shown) =>
        ReadingText.Show(new ReadingValue(kind), Quantity.Ohms).ShouldBe(shown);
}
