using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Procedures;

namespace Fehler.Core.Tests.Procedures;

/// <summary>A device without marks, measured by what is really in it; marks as EN 50005 and IEC 60947 give them (from memory).</summary>
public class TerminalFindingTests
{
    /// <summary>Terminals that belong together, and what a meter shows at rest and worked.</summary>
    private sealed record Truth(string A, string B, string Rest, string Worked);

    private static readonly Truth Coil = new("T1", "B1", "412", "412");

    private static readonly ImmutableArray<Truth> Usual =
    [
        Coil,
        new("T2", "B2", "OL", "0.1"),
        new("T3", "B3", "OL", "0.1"),
        new("T4", "B4", "OL", "beep"),
        new("T5", "B5", "OL", "0.2"),
        new("T6", "B6", "0.1", "OL"),
    ];

    [Fact]
    public void A_usual_contactor_is_found_out_with_a_reading_at_rest_and_one_pressed_a_pair()
    {
        var (found, readings) = Find(UnmarkedDevice.Contactor, 6, 6, Usual);
        readings.ShouldBe(11, "six at rest, five pressed; a winding needs no second");
        Marks(found).ShouldBe(["A1-A2", "1-2", "3-4", "5-6", "13-14", "21-22"]);
        found.Count(f => f.Element == UnmarkedElement.Pole).ShouldBe(3);
    }

    [Fact]
    public void A_coil_with_both_ends_above_is_found_after_what_lies_opposite()
    {
        ImmutableArray<Truth> truth = [new("T1", "T5", "9.5", "9.5"), .. Usual.Skip(1).Take(3)];
        var finding = End(UnmarkedDevice.Contactor, 5, 4, truth);
        finding.Free.ShouldBe(["B1"]);
        var found = finding.Found;
        found.Single(f => f.Element == UnmarkedElement.Coil).ShouldBe(new UnmarkedFound("T1", "T5", UnmarkedElement.Coil, "A1", "A2"));
        Marks(found).ShouldBe(["A1-A2", "1-2", "3-4", "5-6"]);
    }

    [Fact]
    public void A_relay_has_contacts_and_no_poles()
    {
        ImmutableArray<Truth> truth = [Coil, new("T2", "B2", "OL", "0.2"), new("T3", "B3", "0.2", "OL"), new("T4", "B4", "0.2", "OL")];
        Marks(Find(UnmarkedDevice.Contactor, 4, 4, truth).Found).ShouldBe(["A1-A2", "13-14", "21-22", "31-32"]);
    }

    [Fact]
    public void An_overload_relay_has_heaters_and_its_own_numbers()
    {
        ImmutableArray<Truth> truth =
        [
            .. Enumerable.Range(1, 3).Select(i => new Truth($"T{i}", $"B{i}", "0.1", "0.1")),
            new("B4", "B5", "0.1", "OL"),
            new("B6", "B7", "OL", "0.1"),
        ];
        Marks(Find(UnmarkedDevice.OverloadRelay, 3, 7, truth).Found).Order().ShouldBe(["1-2", "3-4", "5-6", "95-96", "97-98"]);
    }

    /// <summary>A dead contact, a broken coil: the rest is found, and what belongs to nothing is said.</summary>
    [Fact]
    public void What_shows_nothing_is_left_over_and_the_search_ends()
    {
        var finding = End(UnmarkedDevice.Contactor, 3, 3, [Coil with { Rest = "OL", Worked = "OL" }, Usual[1], Usual[2]]);
        finding.Found.Length.ShouldBe(2);
        finding.Free.ShouldBe(["T1", "B1"]);
    }

    [Theory]
    [InlineData("T9", "B1", "1", "not two terminals")]
    [InlineData("T1", "T1", "1", "not two terminals")]
    [InlineData("T1", "B1", "lots", "")]
    public void Nonsense_is_refused(string a, string b, string typed, string why) =>
        Should
            .Throw<RefusedException>(() => new TerminalFinding(UnmarkedDevice.Contactor, 3, 3, [new(a, b, false, typed)]))
            .Message.ShouldContain(why);

    [Theory]
    [InlineData(0, 3)]
    [InlineData(13, 3)]
    [InlineData(3, -1)]
    public void Rows_that_no_device_has_are_refused(int top, int bottom) =>
        Should.Throw<RefusedException>(() => new TerminalFinding(UnmarkedDevice.Contactor, top, bottom, []));

    private static IEnumerable<string> Marks(IEnumerable<UnmarkedFound> found) => found.Select(f => $"{f.MarkA}-{f.MarkB}");

    private static (ImmutableArray<UnmarkedFound> Found, int Readings) Find(
        UnmarkedDevice device,
        int top,
        int bottom,
        ImmutableArray<Truth> truth
    )
    {
        var readings = 0;
        var finding = End(device, top, bottom, truth, () => readings++);
        finding.Free.ShouldBeEmpty();
        return (finding.Found, readings);
    }

    /// <summary>Measures what is asked for until nothing more is.</summary>
    private static TerminalFinding End(UnmarkedDevice device, int top, int bottom, ImmutableArray<Truth> truth, Action? each = null)
    {
        var readings = new List<UnmarkedReading>();
        for (; ; )
        {
            var finding = new TerminalFinding(device, top, bottom, readings);
            if (finding.Next is not { } step)
            {
                return finding;
            }

            readings.Count.ShouldBeLessThan(200);
            each?.Invoke();
            var there = truth.FirstOrDefault(t => (t.A, t.B) == (step.A, step.B) || (t.B, t.A) == (step.A, step.B));
            readings.Add(
                new(
                    step.A,
                    step.B,
                    step.Worked,
                    there is null ? "OL"
                        : step.Worked ? there.Worked
                        : there.Rest
                )
            );
        }
    }
}
