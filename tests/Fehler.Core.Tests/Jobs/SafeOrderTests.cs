using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Jobs;

/// <summary>The order in which hands are kept whole (common practice; local codes and site rules come first).</summary>
public class SafeOrderTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;
    private static readonly Conductor Wire = Circuit.Conductors.First(c => c.Id == "4.1");

    private static JobState After(params JournalEntry[] entries) =>
        JobState.Of(Circuit.Compiled(), entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1 }));

    private static readonly JournalEntry[] Dead = [new Isolated(["Q1"]), new ProvedDead(true, true)];

    private static SafetyProcedure SwitchingOn(params JournalEntry[] entries) =>
        SafetyRules.Possible(After([.. Dead, .. entries])).First(p => p.Step == SafetyStep.SwitchOn);

    /// <summary>A wire is landed with the same hands on the same screws as it was lifted.</summary>
    [Fact]
    public void A_wire_is_landed_only_where_it_could_be_lifted()
    {
        var lifted = new WireLifted(Wire.Id, Wire.From);
        After([.. Dead, lifted]).Refuse(new WireLanded(Wire.Id)).ShouldBeNull();
        After([.. Dead, lifted, new Energised()]).Refuse(new WireLanded(Wire.Id)).ShouldNotBeNull().ShouldContain("proved dead");
        After([.. Dead, lifted, new Energised(), new Isolated(["Q1"])])
            .Refuse(new WireLanded(Wire.Id))
            .ShouldNotBeNull()
            .ShouldContain("proved dead");
        After(Dead).Refuse(new WireLanded(Wire.Id)).ShouldNotBeNull().ShouldContain("not recorded as lifted");
    }

    /// <summary>
    /// An armature that is pressed in starts the motor, and a shaft that is turned may be started: neither is touched before it is proved dead.
    /// </summary>
    [Theory]
    [InlineData("KM1", "armature", "moves and springs back")]
    [InlineData("M1", "shaft", "turns freely")]
    public void What_is_felt_by_hand_is_felt_on_a_dead_circuit(string device, string look, string answer)
    {
        var felt = new LookSeen(device, look, answer);
        After().Refuse(felt).ShouldNotBeNull().ShouldContain("proved dead");
        After(new Isolated(["Q1"])).Refuse(felt).ShouldNotBeNull().ShouldContain("proved dead");
        After(Dead).Refuse(felt).ShouldBeNull();
        After([.. Dead, new Energised()]).Refuse(felt).ShouldNotBeNull();
        After().Refuse(new LookSeen("F2", "flag", "tripped")).ShouldBeNull("eyes only");
    }

    /// <summary>Hands go into a dead panel, or somebody says why they did not have to; what was done elsewhere is taken as it was done.</summary>
    [Fact]
    public void A_repair_is_made_on_the_dead_circuit_or_says_why_not()
    {
        var repair = new Repair("KM1", "coil changed", []);
        After().Refuse(repair).ShouldNotBeNull().ShouldContain("proved dead");
        After(new Isolated(["Q1"])).Refuse(repair).ShouldNotBeNull().ShouldContain("proved dead");
        After(Dead).Refuse(repair).ShouldBeNull();
        After([.. Dead, new Energised()]).Refuse(repair).ShouldNotBeNull();
        After().RefuseCarried(repair).ShouldBeNull();
        After().Refuse(repair with { NotIsolated = " " }).ShouldNotBeNull();
        foreach (var why in SafetyRules.RepairedLive(After()))
        {
            After().Refuse(repair with { NotIsolated = why }).ShouldBeNull();
        }

        SafetyRules.RepairedLive(After(Dead)).ShouldBeEmpty();
    }

    [Fact]
    public void Switching_on_asks_for_lifted_wires_and_for_what_was_found_and_not_repaired()
    {
        var plain = SwitchingOn().Checklist;
        plain.ShouldNotContain(c => c.Contains("lifted", StringComparison.Ordinal));
        SwitchingOn(new WireLifted(Wire.Id, Wire.From)).Checklist.ShouldContain(c => c.Contains(Wire.Id, StringComparison.Ordinal));
        var found = new Finding("KM1", "KM1/A1-A2-open");
        SwitchingOn(found).Checklist.Length.ShouldBe(plain.Length + 1);
        SwitchingOn(found, new Repair("KM1", "coil changed", [])).Checklist.ShouldBe(plain);
    }

    [Fact]
    public void Who_isolates_has_stopped_the_machine_first() =>
        SafetyRules.Possible(After()).First(p => p.Step == SafetyStep.Isolate).Checklist[0].ShouldContain("stopped by its own Stop");
}
