using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Tests.Upkeep;

public class UpkeepRulesTests
{
    private static readonly DateTimeOffset Begin = new(2025, 1, 10, 0, 0, 0, TimeSpan.Zero);

    private static UpkeepRules Of(Circuit circuit) => circuit.Compile().Upkeep;

    [Fact]
    public void Every_circuit_of_every_family_has_rules_with_points_that_exist()
    {
        foreach (var family in FamilyCatalogue.All)
        {
            var circuit = FamilyCatalogue.Build(family.Id, JsonDocument.Parse("""{"tag":"X-1","title":"Try"}""").RootElement);
            var rules = Of(circuit).All;
            rules.ShouldContain(r => r.Rule.Id == "panel");
            rules.Select(r => r.Rule.Id).ShouldBeUnique();
            foreach (var asked in rules.SelectMany(r => r.Rule.Readings))
            {
                foreach (var point in new[] { asked.From, asked.To })
                {
                    circuit
                        .Device(point.Device)
                        .Kind.HasTerminal(circuit.Device(point.Device), point.Name)
                        .ShouldBeTrue($"{family.Id}: {point}");
                }
            }

            rules.ShouldAllBe(r => r.Minutes > 0 && r.Rule.Months > 0 && r.Rule.Source.Length > 0);
        }
    }

    [Fact]
    public void A_reversing_starter_has_its_interlock_tried_and_a_single_one_none()
    {
        Of(new Reversing { Tag = "R-1", Title = "Fan" }.Build()).Find("interlock").ShouldNotBeNull();
        Of(Starters.LineToNeutral).Find("interlock").ShouldBeNull();
    }

    private static Condition[] Conditions(params PastJob[] jobs) => [.. Condition.Of(Of(Starters.LineToNeutral), jobs, [])];

    private static PastJob Tripped(int day) => new(Begin.AddDays(day), "F2/tripped", "F2 has tripped", true, []);

    [Fact]
    public void A_second_trip_within_a_month_asks_for_the_currents_at_once()
    {
        Conditions(Tripped(0), Tripped(90)).ShouldBeEmpty();
        var second = Conditions(Tripped(0), Tripped(90), Tripped(101)).Single();
        (second.Rule, second.Due).ShouldBe(("currents", DateOnly.FromDateTime(Begin.AddDays(101).Date)));
    }

    [Fact]
    public void A_weld_asks_for_the_contacts_and_water_for_the_insulation()
    {
        var weld = Conditions(new PastJob(Begin, "KM1/1-2-welded", "Pole 1-2 of KM1 is welded", false, [])).Single();
        (weld.Rule, weld.Due).ShouldBe(("contacts", new DateOnly(2025, 2, 10)));
        Conditions(new PastJob(Begin, null, null, false, [Circumstance.Water])).Single().Rule.ShouldBe("insulation");
    }

    [Fact]
    public void What_was_done_since_answers_a_condition()
    {
        var weld = new Condition("contacts", Begin, DateOnly.FromDateTime(Begin.Date), "after a weld");
        var before = DueDay.Of("contacts", 36, Begin.AddYears(-1), Begin, [weld]);
        before.Why.ShouldBe("after a weld");
        var after = DueDay.Of("contacts", 36, Begin.AddDays(1), Begin, [weld]);
        after.ShouldBe(new DueDay(DateOnly.FromDateTime(Begin.AddDays(1).AddMonths(36).Date), ""));
    }

    [Fact]
    public void What_was_never_done_is_counted_from_when_the_circuit_came_in() =>
        DueDay.Of("panel", 24, null, Begin, []).Due.ShouldBe(new DateOnly(2027, 1, 10));
}
