using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Tests.Upkeep;

/// <summary>What a round asks for can be measured on every sample circuit, is taken by the journal's rules, and is followed afterwards.</summary>
public class AskedReadingsTests
{
    private static readonly DateTimeOffset At = new(2026, 5, 4, 7, 0, 0, TimeSpan.Zero);

    private static JobState In(CompiledCircuit compiled, UpkeepState state) =>
        JobState.Of(
            compiled,
            state == UpkeepState.Dead
                ? [new Isolated(compiled.Isolation.Points) { Sequence = 1 }, new ProvedDead(true, true) { Sequence = 2 }]
                : [new LiveWorkAcknowledged { Sequence = 1 }]
        );

    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void A_sound_panel_answers_every_asked_reading_and_the_answer_is_followed(string sample)
    {
        var compiled = FamilySamples.Of(sample).Compile();
        var panel = new SimulatedPanel(compiled, [], seed: 3);
        var runs = compiled.FunctionTest.Steps.FirstOrDefault(s => !s.Currents.IsEmpty);
        foreach (var rule in compiled.Upkeep.All.Select(u => u.Rule).Where(r => !r.Readings.IsEmpty))
        {
            if (rule.State == UpkeepState.Dead)
            {
                panel.Isolate();
            }

            var (job, readings) = (In(compiled, rule.State), new List<JournalEntry>());
            foreach (var asked in rule.Readings)
            {
                // Currents only once something runs; here they are those of the run that the function test has.
                var value =
                    asked.Quantity == Quantity.Amps
                        ? runs?.Currents.FirstOrDefault(c => c.Terminal == asked.From) is { } current
                            ? ReadingValue.Of(current.Amps)
                            : null
                        : (ReadingValue?)panel.Measure(asked.Quantity, asked.From, asked.To, []);
                if (value is not { } shown)
                {
                    continue;
                }

                var reading = new Reading(asked.Quantity, asked.From, asked.To, [], shown) { At = At };
                job.Refuse(reading).ShouldBeNull($"{rule.Id}: {asked.From} to {asked.To}");
                readings.Add(reading);
            }

            var numbers = readings.OfType<Reading>().Where(r => r.Value is { Kind: ReadingKind.Number, Number: > 0 }).ToList();
            var working = runs is null ? "" : SeriesValues.Working(compiled.Circuit, runs.Expected);
            var followed = compiled.SeriesValues.Of(numbers, working).Select(v => v.Key.What).ToList();
            if (numbers.Count > 0)
            {
                followed.ShouldNotBeEmpty($"{sample} {rule.Id}");
                followed.Except(rule.Follows).ShouldBeEmpty($"{sample} {rule.Id}: what is measured says how soon it is due");
            }

            if (panel.IsIsolated)
            {
                panel.Energise();
            }
        }
    }

    /// <summary>A line of sound values lies within the limits of its series: nobody is warned of a new plant.</summary>
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Sound_values_that_stay_ask_for_nothing(string sample)
    {
        var compiled = FamilySamples.Of(sample).Compile();
        var runs = compiled.FunctionTest.Steps.Where(s => !s.Currents.IsEmpty).Take(1).ToList();
        var values = new List<SeriesValue>();
        for (var month = 0; month < 8; month++)
        {
            var (at, noise) = (At.AddMonths(3 * month), 1 + 0.01 * (month % 2 == 0 ? 1 : -1));
            foreach (var step in runs)
            {
                var working = SeriesValues.Working(compiled.Circuit, step.Expected);
                values.AddRange(
                    compiled.SeriesValues.Of(
                        step.Currents.Select(c => new Reading(Quantity.Amps, c.Terminal, c.Terminal, [], ReadingValue.Of(noise * c.Amps))
                        {
                            At = at,
                        }),
                        working
                    )
                );
            }
        }

        var series = Series.Of(compiled.Circuit, values, new Dictionary<string, DateTimeOffset>());
        series.ShouldAllBe(s => !s.IsBeyond && s.Reaches == null, sample);
        Condition.Of(compiled.Upkeep, [], series).ShouldBeEmpty(sample);
    }

    /// <summary>Each part of every family has a name by which a twin is found, and a coil is never the whole.</summary>
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Every_part_is_one_of_the_circuits_devices_and_is_named_by_its_plate(string sample)
    {
        var compiled = FamilySamples.Of(sample).Compile();
        compiled.InstalledParts.All.ShouldNotBeEmpty();
        foreach (var part in compiled.InstalledParts.All)
        {
            compiled.Circuit.FindDevice(part.Device).ShouldNotBeNull();
            part.Name.ShouldStartWith(part.Noun);
            (part.IsCoil && compiled.Circuit.Device(part.Device).Kind.CoilOf(compiled.Circuit.Device(part.Device)) is null).ShouldBeFalse();
        }

        compiled.InstalledParts.All.GroupBy(p => (p.Device, p.IsCoil)).ShouldAllBe(g => g.Count() == 1);
    }

    /// <summary>The outline of a circuit holds what the circuit itself says, and survives being written down.</summary>
    [Fact]
    public void An_outline_is_the_same_after_it_was_kept()
    {
        var compiled = FamilySamples.Of("dol-transformer-earthed").Compile();
        var outline = CircuitOutline.Of(compiled);
        var kept = System.Text.Json.JsonSerializer.Serialize(outline, JournalJson.Options);
        var back = System.Text.Json.JsonSerializer.Deserialize<CircuitOutline>(kept, JournalJson.Options)!;
        System.Text.Json.JsonSerializer.Serialize(back, JournalJson.Options).ShouldBe(kept);
        back.Rules.Select(r => r.Id).ShouldBe(compiled.Upkeep.All.Select(u => u.Rule.Id));
        back.Isolation.ShouldBe(compiled.Isolation.Points);
        back.Parts.ShouldBe(compiled.InstalledParts.All);
        back.TestSteps.ShouldBe(compiled.FunctionTest.Steps.Length);
    }
}
