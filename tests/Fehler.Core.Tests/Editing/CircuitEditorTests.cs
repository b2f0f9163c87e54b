using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Editing;

/// <summary>Edits that bring a drawing to what is in the panel.</summary>
public class CircuitEditorTests
{
    private static readonly Circuit Before = Starters.LineToNeutral;

    private static Circuit Edited(params CircuitEdit[] edits) => edits.Aggregate(Before, CircuitEditor.Apply);

    [Fact]
    public void A_contact_in_series_blocks_the_start_until_it_is_made()
    {
        var circuit = Edited(new InsertBeside("S1:21-22", Beside.SeriesAfter, "B3", "process-switch", "13-14", "station", "Guard closed"));
        new Operated(circuit).Do("S2 pressed")["M1"].ShouldBe("stopped");
        new Operated(circuit).Do("B3 operated", "S2 pressed", "S2 released")["M1"].ShouldBe("runs");
    }

    [Fact]
    public void A_button_in_parallel_is_a_second_start()
    {
        var circuit = Edited(new InsertBeside("S2:13-14", Beside.Parallel, "S4", "push-button", "13-14", "panel", "Start at the panel"));
        new Operated(circuit).Do("S4 pressed", "S4 released")["M1"].ShouldBe("runs");
        circuit.WireAt(TerminalId.Parse("S4:13")).ShouldBe(circuit.WireAt(TerminalId.Parse("S2:13")));
    }

    [Fact]
    public void A_further_contact_of_a_contactor_that_is_there_is_added_to_it()
    {
        var circuit = Edited(new InsertBeside("H2:X1-X2", Beside.SeriesBefore, "KM1", "", "61-62", "", ""));
        circuit.Device("KM1").Given("contacts").Words!.Value.ShouldContain("61-62");
    }

    [Fact]
    public void An_insertion_keeps_the_numbers_and_routes_of_the_wires_it_does_not_touch()
    {
        var circuit = Edited(
            new RenumberWire("3", "103"),
            new InsertBeside("S2:13-14", Beside.Parallel, "S4", "push-button", "13-14", "station", "")
        );
        circuit.Conductors.Count(c => c.Wire == "103").ShouldBeGreaterThan(1);
        var untouched = Before.Conductors.Where(c => c.Wire is "1" or "2" or "N" or "2L1").ToList();
        untouched.ShouldAllBe(c => circuit.Conductors.Contains(c));
    }

    [Fact]
    public void Taking_out_what_was_put_in_leads_back_to_the_circuit_before()
    {
        var circuit = Edited(
            new InsertBeside("S1:21-22", Beside.SeriesAfter, "B3", "process-switch", "13-14", "station", ""),
            new RemovePart("B3:13-14")
        );
        circuit.Devices.ShouldBe(Before.Devices);
        circuit.Paths.ShouldBe(Before.Paths);
        circuit
            .Conductors.Select(c => (c.Wire, c.From, c.To))
            .ShouldBe(Before.Conductors.Select(c => (c.Wire, c.From, c.To)), ignoreOrder: true);
    }

    [Fact]
    public void A_renamed_device_is_called_so_everywhere_and_its_interlock_follows()
    {
        var reversing = CircuitEditor.Apply(FamilySamples.Of("reversing"), new RenameDevice("KM2", "K12"));
        reversing.Device("KM1").Given("interlockedWith").Word!.ShouldBe("K12");
        CircuitFile.Write(reversing).ShouldNotContain("KM2");
        new Operated(reversing).Do("S3 pressed", "S3 released")["K12"].ShouldBe("in");
    }

    [Fact]
    public void A_contact_gets_the_numbers_of_the_installed_block_and_keeps_what_it_does()
    {
        var circuit = Edited(new RenameContact("KM1", "13-14", "33-34"));
        circuit.FindDevice("KM1")!.Given("contacts").Words!.Value.ShouldContain("33-34");
        new Operated(circuit).Do("S2 pressed", "S2 released")["KM1"].ShouldBe("in");
    }

    /// <summary>EN 50005: the last digits say whether a contact opens or closes.</summary>
    [Fact]
    public void A_number_that_says_the_opposite_of_the_contact_is_refused() =>
        Should.Throw<CircuitException>(() => Edited(new RenameContact("S1", "21-22", "23-24"))).Message.ShouldContain("EN 50005");

    [Fact]
    public void A_renumbered_wire_takes_its_clamp_along_and_cannot_take_the_number_of_another()
    {
        var circuit = Edited(new RenumberWire("4", "204"));
        circuit.Conductors.ShouldContain(c => c.From == TerminalId.Parse("X1:204") || c.To == TerminalId.Parse("X1:204"));
        circuit.Conductors.ShouldNotContain(c => c.Wire == "4");
        Should.Throw<CircuitException>(() => Edited(new RenumberWire("4", "3"))).Message.ShouldContain("another potential");
    }

    [Fact]
    public void All_numbered_wires_are_numbered_in_one_go_and_what_has_a_name_keeps_it()
    {
        var circuit = Edited(new RenumberWires(101, 2));
        string[] Numbers(Circuit c) => [.. c.Conductors.Select(x => x.Wire).Distinct().Where(w => w.All(char.IsDigit))];
        Numbers(circuit).Length.ShouldBe(Numbers(Before).Length);
        Numbers(circuit).Select(int.Parse).ShouldAllBe(n => n >= 101 && n % 2 == 1);
        circuit.Conductors.Count(c => c.Wire == "2L1").ShouldBe(Before.Conductors.Count(c => c.Wire == "2L1"));
        new Operated(circuit).Do("S2 pressed")["M1"].ShouldBe("runs");
        // Numbers that overlap the old ones do not run into each other.
        Edited(new RenumberWires(2, 1)).Conductors.Length.ShouldBe(Before.Conductors.Length);
        Should.Throw<CircuitException>(() => Edited(new RenumberWires(1, 0))).Message.ShouldContain("1 to 1000 further");
    }

    /// <summary>
    /// A route decides what one break kills: with the retaining contact at the end of the chain, breaking the last conductor leaves Start
    /// working.
    /// </summary>
    [Fact]
    public void A_route_decides_what_a_broken_conductor_kills()
    {
        var circuit = Edited(new RouteChained("3", ["S1:22", "S2:13", "X1:3", "KM1:13"]));
        var last = circuit.Conductors.First(c => c.Wire == "3" && (c.To.Device == "KM1" || c.From.Device == "KM1"));
        var o = new Operated(circuit, new ConductorOpen(last.Id)).Do("S2 pressed");
        o["M1"].ShouldBe("runs");
        o.Do("S2 released")["M1"].ShouldBe("stopped");
    }

    [Fact]
    public void All_ends_of_a_wire_can_be_brought_to_the_strip()
    {
        var circuit = Edited(new RouteOverStrip("3", "X1"));
        circuit
            .Conductors.Where(c => c.Wire == "3")
            .ShouldAllBe(c => c.From == TerminalId.Parse("X1:3") || c.To == TerminalId.Parse("X1:3"));
    }

    [Fact]
    public void A_conductor_landed_elsewhere_on_its_wire_is_moved_there_and_one_on_another_wire_is_refused()
    {
        var conductor = Before.Conductors.First(c =>
            c.Wire == "3" && c.To == TerminalId.Parse("KM1:13") || c.From == TerminalId.Parse("KM1:13")
        );
        Should
            .Throw<CircuitException>(() =>
                CircuitEditor.Apply(Before, new MoveEnd(conductor.Id, conductor.From == TerminalId.Parse("KM1:13"), "KM1:53"))
            )
            .Message.ShouldContain("paths keep them apart");
    }

    [Fact]
    public void A_new_nameplate_leads_to_another_machine_and_proposes_the_setting()
    {
        var circuit = Edited(new SetParameter("M1", "kilowatts", "7.5"), new SetParameter("M1", "amps", "15.2"));
        circuit.Device("M1").Given("statorOhms").Number!.Value.ShouldNotBe(Before.Device("M1").Given("statorOhms").Number!.Value);
        var proposal = PlateCheck.Proposals(circuit.Compiled()).First(p => p.Edit is SetParameter { Tag: "F2", Name: "settingAmps" });
        double.Parse(((SetParameter)proposal.Edit).Value, System.Globalization.CultureInfo.InvariantCulture).ShouldBe(15.2, 1.2);
    }

    /// <summary>In the phase leads 0.577 of the nameplate current (circuit theory).</summary>
    [Fact]
    public void The_setting_proposed_in_the_phase_leads_is_0577_of_the_nameplate()
    {
        var circuit = CircuitEditor.Apply(FamilySamples.Of("star-delta"), new SetParameter("F2", "settingAmps", "29"));
        var proposal = PlateCheck.Proposals(circuit.Compiled()).Select(p => p.Edit).OfType<SetParameter>().First(e => e.Tag == "F2");
        double.Parse(proposal.Value, System.Globalization.CultureInfo.InvariantCulture).ShouldBe(29 * 0.577, 1);
    }

    [Fact]
    public void A_wrong_coil_is_proposed_to_be_one_for_the_voltage_it_sees()
    {
        var circuit = Edited(new SetParameter("KM1", "coilVolts", "400"));
        PlateCheck.Proposals(circuit.Compiled()).Select(p => p.Edit).ShouldContain(new SetParameter("KM1", "coilVolts", "230"));
    }

    [Theory]
    [InlineData("S9:13-14", "is not a part of any path")]
    [InlineData("KM1:1-2,3-4,5-6", "several poles")]
    public void Beside_what_is_not_a_two_terminal_part_nothing_is_put(string part, string reason) =>
        Should
            .Throw<CircuitException>(() => Edited(new InsertBeside(part, Beside.Parallel, "B1", "process-switch", "13-14", "station", "")))
            .Message.ShouldContain(reason);

    [Theory]
    [InlineData("KM1", "coilVolts", "high", "not a number")]
    [InlineData("KM1", "coilVolts", "99999", "not a number from")]
    [InlineData("KM1", "colour", "red", "has no 'colour'")]
    [InlineData("KM9", "coilVolts", "230", "no device KM9")]
    public void A_setting_that_makes_no_sense_is_refused(string tag, string name, string value, string reason) =>
        Should.Throw<CircuitException>(() => Edited(new SetParameter(tag, name, value))).Message.ShouldContain(reason);

    /// <summary>Whatever single contact is taken out of whatever family, the rest is still a circuit.</summary>
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Any_contact_can_be_taken_out_and_the_file_still_reads_back(string name)
    {
        var circuit = FamilySamples.Of(name);
        foreach (var part in circuit.Paths.SelectMany(p => p.Expression.Parts()).Where(p => p.In.Length == 1 && p.Out.Length == 1))
        {
            Circuit? edited = null;
            try
            {
                edited = CircuitEditor.Apply(circuit, new RemovePart(part.ToString()));
            }
            catch (CircuitException e)
            {
                e.Path.ShouldStartWith("edit.");
            }

            if (edited is not null)
            {
                CircuitFile.Read(CircuitFile.Write(edited)).ShouldBe(edited, $"{name} without {part}");
                _ = edited.Compiled().DesignReview.Findings;
                _ = edited.Compiled().RunUp.Starts;
            }
        }
    }
}
