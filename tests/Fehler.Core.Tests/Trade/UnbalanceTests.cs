using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Core.Trade;

namespace Fehler.Core.Tests.Trade;

/// <summary>Unbalance of three line values against worked examples, and what a set of three says of a circuit.</summary>
public class UnbalanceTests
{
    /// <summary>
    /// 460, 467, 450 V: mean 459, farthest 9, 1.96 % (the worked example of NEMA MG 1 part 14.36, from memory); beside it the magnitudes'
    /// negative sequence, checked by the triangle below.
    /// </summary>
    [Theory]
    [InlineData(460, 467, 450, 1.96, 2.15)]
    [InlineData(243, 234, 236, 2.24, 2.31)]
    [InlineData(400, 400, 400, 0, 0)]
    public void Three_voltages_have_the_unbalance_of_the_worked_example(double a, double b, double c, double percent, double sequence)
    {
        var unbalance = Unbalance.Of(a, b, c);
        (100 * unbalance.Share).ShouldBe(percent, 0.006);
        (100 * unbalance.SequenceShare!.Value).ShouldBe(sequence, 0.01);
    }

    /// <summary>
    /// The formula in magnitudes is that of Fortescue's components of the triangle that the three voltages close (C. L. Fortescue, Trans. AIEE
    /// 37, 1918): worked out here from the angles by the law of cosines.
    /// </summary>
    [Theory]
    [InlineData(460, 467, 450)]
    [InlineData(400, 360, 310)]
    [InlineData(690, 400, 400)]
    public void The_magnitudes_give_the_sequence_components_of_their_triangle(double a, double b, double c)
    {
        var angleA = Math.Acos((b * b + c * c - a * a) / (2 * b * c));
        var angleB = Math.Acos((a * a + c * c - b * b) / (2 * a * c));
        System.Numerics.Complex Side(double length, double direction) => System.Numerics.Complex.FromPolarCoordinates(length, direction);
        // Sides run around the triangle: c from A to B, a from B to C, b from C back to A.
        var (u, v, w) = (Side(c, 0), Side(a, Math.PI - angleB), Side(b, Math.PI + angleA));
        (u + v + w).Magnitude.ShouldBe(0, 1e-9 * a);
        var turn = Side(1, 2 * Math.PI / 3);
        var (one, other) = ((u + turn * v + turn * turn * w).Magnitude, (u + turn * turn * v + turn * w).Magnitude);
        Unbalance.Of(a, b, c).SequenceShare!.Value.ShouldBe(Math.Min(one, other) / Math.Max(one, other), 1e-9);
    }

    /// <summary>The curve of NEMA MG 1, figure 14-1, read from memory.</summary>
    [Theory]
    [InlineData(1, 1.00)]
    [InlineData(2, 0.95)]
    [InlineData(3, 0.88)]
    [InlineData(4, 0.82)]
    [InlineData(5, 0.75)]
    public void A_motor_bears_less_on_unlike_volts(double percent, double left)
    {
        // One line off by d, the others by half of it to the other side: the mean stays, the share is d.
        var share = percent / 100;
        Unbalance.Of(400 * (1 + share), 400 * (1 - share / 2), 400 * (1 - share / 2)).Derating!.Value.ShouldBe(left, 1e-6);
    }

    [Fact]
    public void More_than_five_per_cent_is_no_supply_for_a_motor() => Unbalance.Of(400, 400, 330).Derating.ShouldBeNull();

    [Theory]
    [InlineData(0, 0, 0)]
    [InlineData(-1, 400, 400)]
    [InlineData(double.NaN, 400, 400)]
    public void What_no_three_meters_show_is_refused(double a, double b, double c) =>
        Should.Throw<RefusedException>(() => Unbalance.Of(a, b, c));

    /// <summary>Three that close no triangle were not voltages between the lines of one supply.</summary>
    [Fact]
    public void What_closes_no_triangle_has_no_sequence() => Unbalance.Of(400, 100, 100).SequenceShare.ShouldBeNull();

    [Fact]
    public void A_line_that_draws_nothing_is_named_and_the_motor_switched_off()
    {
        var verdict = Starters.LineToNeutral.Compiled().ThreeLines.Verdict(Quantity.Amps, [14.1, 0.0, 13.8]);
        verdict.ShouldHaveSingleItem().ShouldContain("Line 2 draws nothing");
        verdict[0].ShouldContain("switch it off");
    }

    [Fact]
    public void Three_currents_are_told_against_the_plate()
    {
        var lines = Starters.LineToNeutral.Compiled().ThreeLines;
        var plate = Starters.LineToNeutral.Devices.Select(d => d.Kind.PlateOf(d)).First(p => p is not null)!.Amps.Value;
        lines.Verdict(Quantity.Amps, [0.8 * plate, 0.8 * plate, 0.8 * plate]).ShouldContain(s => s.Contains("80 %"));
        lines.Verdict(Quantity.Amps, [1.2 * plate, 1.2 * plate, 1.2 * plate]).ShouldContain(s => s.Contains("overloaded"));
        lines.Verdict(Quantity.Amps, [plate, 0.75 * plate, plate]).ShouldContain(s => s.Contains("by one place"));
    }

    [Fact]
    public void Volts_far_from_the_supply_or_from_each_other_are_told()
    {
        var lines = Starters.LineToNeutral.Compiled().ThreeLines;
        lines.Verdict(Quantity.Volts, [400, 401, 399]).Length.ShouldBe(1);
        lines.Verdict(Quantity.Volts, [340, 341, 339]).ShouldContain(s => s.Contains("from the supply's 400 V"));
        lines.Verdict(Quantity.Volts, [400, 392, 385]).ShouldContain(s => s.Contains("NEMA MG 1"));
        lines.Verdict(Quantity.Volts, [400, 400, 250]).ShouldContain(s => s.Contains("not to run"));
        Should.Throw<RefusedException>(() => lines.Verdict(Quantity.Ohms, [1, 1, 1]));
    }
}
