using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

public class LikelihoodTests
{
    private static readonly Prediction Full = new(PredictionKind.Value, 230, 11.5),
        Nothing = new(PredictionKind.Value, 0, 1.2),
        Stray = new(PredictionKind.Stray, 60),
        Open = new(PredictionKind.OverLimit),
        Coil = new(PredictionKind.Value, 560, 56),
        Closed = new(PredictionKind.Value, 0.3, 0.25);

    [Fact]
    public void A_reading_near_the_prediction_fits_and_one_far_from_it_is_an_outlier_not_an_impossibility()
    {
        Of(228, Full).ShouldBeGreaterThan(0.9);
        Of(2, Full).ShouldBeInRange(1e-4, 5e-3);
        Of(230, Nothing).ShouldBeInRange(1e-4, 5e-3);
    }

    [Fact]
    public void Ten_percent_of_supply_is_within_what_may_be() => Of(253, Full).ShouldBeGreaterThan(0.1);

    [Fact]
    public void A_stray_point_explains_many_readings_but_none_as_well_as_the_right_firm_one()
    {
        foreach (var volts in new[] { 0.5, 12, 60, 110 })
        {
            Of(volts, Stray).ShouldBeGreaterThan(Of(volts, Full));
            Of(volts, Stray).ShouldBeLessThan(0.5);
        }

        Of(400, Stray).ShouldBeLessThan(5e-3);
    }

    /// <summary>
    /// Near zero a factor is no spread: behind a blown fuse stands a microvolt, with a fault of twice the size two of them, and 394 V fit
    /// neither.
    /// </summary>
    [Theory]
    [InlineData(1e-6, 1e-6)]
    [InlineData(0, 0.5)]
    [InlineData(0.4, 0.3)]
    public void Next_to_nothing_of_unknown_size_is_still_next_to_nothing(double volts, double spread)
    {
        var prediction = new Prediction(PredictionKind.Value, volts, 1.2, spread);
        Of(394, prediction).ShouldBeLessThan(5e-3);
        Of(0.3, prediction).ShouldBeGreaterThan(0.5);
    }

    [Fact]
    public void Unsteady_speaks_for_a_point_that_nothing_holds() =>
        Likelihood
            .OfReading(Quantity.Volts, new ReadingValue(ReadingKind.Unsteady), Stray, 230, 280)
            .ShouldBeGreaterThan(10 * Likelihood.OfReading(Quantity.Volts, new ReadingValue(ReadingKind.Unsteady), Full, 230, 280));

    [Fact]
    public void OL_fits_an_open_path_and_not_a_coil()
    {
        Likelihood.OfReading(Quantity.Ohms, new ReadingValue(ReadingKind.OverLimit), Open, 230, 280).ShouldBeGreaterThan(0.9);
        Likelihood.OfReading(Quantity.Ohms, new ReadingValue(ReadingKind.OverLimit), Coil, 230, 280).ShouldBeLessThan(0.02);
    }

    /// <summary>
    /// Leads that touch nothing are the commonest mistake (common practice): OL, no beep and no voltage are believed less than a number that
    /// does not fit.
    /// </summary>
    [Fact]
    public void Nothing_shown_may_be_leads_that_touch_nothing()
    {
        Of(0, Full).ShouldBeGreaterThan(3 * Of(100, Full));
        Likelihood
            .OfReading(Quantity.Ohms, new ReadingValue(ReadingKind.OverLimit), Coil, 230, 280)
            .ShouldBeGreaterThan(3 * Likelihood.OfReading(Quantity.Ohms, ReadingValue.Of(20), Coil, 230, 280));
        Likelihood
            .OfReading(Quantity.Continuity, new ReadingValue(ReadingKind.Silent), Closed, 230, 280)
            .ShouldBeGreaterThan(3 * Likelihood.OfReading(Quantity.Continuity, new ReadingValue(ReadingKind.Beep), Open, 230, 280));
    }

    /// <summary>Common practice: a beep is enough for a contact, never for a coil.</summary>
    [Fact]
    public void A_beep_tells_a_closed_contact_from_an_open_one_and_a_coil_stays_silent()
    {
        Beep(Closed).ShouldBeGreaterThan(0.9);
        Beep(Open).ShouldBeLessThan(5e-3);
        Beep(Coil).ShouldBeLessThan(5e-3);
    }

    [Fact]
    public void Full_means_the_control_voltage()
    {
        Likelihood.OfReading(Quantity.Volts, new ReadingValue(ReadingKind.Full), Full, 230, 280).ShouldBeGreaterThan(0.5);
        Likelihood.OfReading(Quantity.Volts, new ReadingValue(ReadingKind.Full), Nothing, 230, 280).ShouldBeLessThan(5e-3);
    }

    [Fact]
    public void Sounds_that_are_easily_taken_for_each_other_cost_little()
    {
        Likelihood.OfAppearance("buzzes", "chatters").ShouldBeGreaterThan(5 * Likelihood.OfAppearance("in", "out"));
        Likelihood.OfAppearance("in", "in").ShouldBeGreaterThan(0.9);
    }

    [Fact]
    public void The_sign_of_an_alternating_voltage_means_nothing() => Of(-229, Full).ShouldBe(Of(229, Full), 1e-12);

    /// <summary>A resistance known to a factor of two spreads by a factor: half and double fit, zero does not.</summary>
    [Fact]
    public void A_fault_of_unknown_size_fits_readings_within_its_factor_only()
    {
        var joint = new Prediction(PredictionKind.Value, 4000, 400, 4000);
        OfOhms(4000, joint).ShouldBeGreaterThan(0.05);
        OfOhms(2200, joint).ShouldBeGreaterThan(0.02);
        OfOhms(7500, joint).ShouldBeGreaterThan(0.02);
        OfOhms(0.3, joint).ShouldBeLessThan(5e-3);
    }

    private static double Of(double value, Prediction prediction) =>
        Likelihood.OfReading(Quantity.Volts, ReadingValue.Of(value), prediction, 230, 280);

    private static double OfOhms(double value, Prediction prediction) =>
        Likelihood.OfReading(Quantity.Ohms, ReadingValue.Of(value), prediction, 230, 280);

    private static double Beep(Prediction prediction) =>
        Likelihood.OfReading(Quantity.Continuity, new ReadingValue(ReadingKind.Beep), prediction, 230, 280);
}
