using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Editing;

/// <summary>Plates and settings held against motor and supply; limits are common practice unless a standard is named beside them.</summary>
public class PlateCheckTests
{
    [Fact]
    public void A_starter_that_is_made_up_well_fits_throughout()
    {
        var rows = PlateCheck.Of(Starters.LineToNeutral.Compiled());
        rows.Where(r => r.Fit != Fit.Fits).Select(r => $"{r.Device}: {r.Says}").ShouldBeEmpty();
        rows.Select(r => r.Device).Distinct().ShouldBe(["M1", "F2", "KM1", "Q1", "F1"], ignoreOrder: true);
    }

    /// <summary>A contactor of 9 A and a motor of 22.8 A: AC-3 has to be the motor's current at least (IEC 60947-4-1, from memory).</summary>
    [Fact]
    public void A_contactor_that_is_too_small_for_its_motor_does_not_fit()
    {
        var circuit = With(With(Starters.LineToNeutral, "KM1", "ratedAmps", 9), "M1", "amps", 22.8);
        var row = PlateCheck.Of(circuit.Compile()).Single(r => r.Device == "KM1" && r.Says.Contains("AC-3", StringComparison.Ordinal));
        row.Fit.ShouldBe(Fit.DoesNotFit);
        row.Says.ShouldContain("9 A");
        row.Says.ShouldContain("22.8 A");
    }

    [Theory]
    [InlineData("F1", "ratedAmps", 8, "blows at starts")]
    [InlineData("F1", "ratedAmps", 63, "may not be protected")]
    [InlineData("Q1", "ratedAmps", 5, "overloaded")]
    [InlineData("F2", "settingAmps", 12, "dial is at 12.0 A")]
    public void What_goes_with_no_motor_of_this_size_is_said(string device, string parameter, double value, string says) =>
        PlateCheck
            .Of(With(Starters.LineToNeutral, device, parameter, value).Compile())
            .ShouldContain(r => r.Device == device && r.Fit != Fit.Fits && r.Says.Contains(says, StringComparison.Ordinal));

    /// <summary>A coil of 277 V on 230 V: 83 %, below the 85 % from which it is sure to pull in (IEC 60947-4-1, from memory).</summary>
    [Fact]
    public void A_coil_that_gets_too_little_is_to_be_looked_at() =>
        PlateCheck
            .Of(With(Starters.LineToNeutral, "KM1", "coilVolts", 277).Compile())
            .ShouldContain(r => r.Device == "KM1" && r.Fit == Fit.Mind && r.Says.Contains("85", StringComparison.Ordinal));

    /// <summary>1.5 mm² carries 15 A laid in a conduit on a wall (IEC 60364-5-52, method B2, from memory).</summary>
    [Fact]
    public void A_motor_cable_that_is_too_thin_does_not_fit()
    {
        var circuit = With(Starters.LineToNeutral, "M1", "amps", 40);
        circuit = circuit with
        {
            Conductors =
            [
                .. circuit.Conductors.Select(c => c.To.Device == "M1" || c.From.Device == "M1" ? c with { SquareMillimetres = 1.5 } : c),
            ],
        };
        PlateCheck
            .Of(circuit.Compile())
            .ShouldContain(r =>
                r.Device == "M1" && r.Fit == Fit.DoesNotFit && r.Says.Contains("carries about 15 A", StringComparison.Ordinal)
            );
    }

    /// <summary>Set to the measured or to the plate volts: both are done (common practice), and a person chooses.</summary>
    [Fact]
    public void A_set_point_is_offered_by_the_supply_and_by_the_plate()
    {
        var circuit = FamilySamples.All.First(c => c.Devices.Any(d => d.Kind.SetPointOf(d) is not null));
        var monitor = circuit.Devices.First(d => d.Kind.SetPointOf(d) is not null);
        var motor = circuit.Devices.First(d => d.Kind.PlateOf(d) is not null);
        var supply = circuit.Supply.Kind.SourceOf(circuit.Supply)!.LineVolts.Value;
        var differs = With(circuit, monitor.Tag, "lineVolts", supply * 1.2) is var set
            ? With(set, motor.Tag, "volts", supply * 1.1)
            : circuit;
        var row = PlateCheck.Of(differs.Compile()).Single(r => r.Device == monitor.Tag);
        row.Fit.ShouldBe(Fit.Mind);
        row.Changes.Select(c => ((SetParameter)c.Edit).Value).ShouldBe([$"{supply:0}", $"{supply * 1.1:0}"]);
        foreach (var change in row.Changes)
        {
            Should.NotThrow(() => CircuitEditor.Apply(differs, change.Edit));
        }
    }

    /// <summary>Only what can be put right in the description is proposed.</summary>
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Every_family_is_checked_and_its_proposals_are_rows_that_do_not_fit(string name)
    {
        var compiled = FamilySamples.Of(name).Compiled();
        var rows = PlateCheck.Of(compiled);
        rows.ShouldNotBeEmpty();
        rows.ShouldAllBe(r => compiled.Circuit.FindDevice(r.Device) != null);
        PlateCheck.Proposals(compiled).Length.ShouldBe(rows.Sum(r => r.Changes.Length));
    }

    private static Circuit With(Circuit circuit, string tag, string parameter, double value) =>
        circuit with
        {
            Devices = [.. circuit.Devices.Select(d => d.Tag == tag ? d.With(parameter, value) : d)],
        };
}
