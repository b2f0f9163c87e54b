using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>What is due, a shutdown, what is followed over the years, spares, and where the time goes; in the browser.</summary>
public sealed class UpkeepViewsTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    public UpkeepViewsTests() => _screen = new Screen(_app.Address);

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }

    [Fact]
    public void A_round_is_done_with_its_readings_and_stands_in_the_trends()
    {
        _screen.Open("/plan");
        _screen.Type(".search", "WP-303 insulation");
        _screen.Until(() => Rows() == 1, "one line of the plan");
        _screen.ClickText("Do it");
        _screen.See("prove dead at the point of work");
        _screen.Type("[aria-label='M1:U to M1:PE']", "40");
        _screen.Type("[aria-label='Winding at °C']", "20");
        _screen.Type("[aria-label='M1:U to M1:V']", "beep");
        _screen.ClickText("Done");
        _screen.See("M1:U–M1:V “beep”");
        _screen.Type("[aria-label='M1:U to M1:V']", "4.1");
        _screen.ClickText("Done");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0, "the dialog gone");
        // Two years on, counted from today.
        _screen.See($"{DateTime.UtcNow.AddMonths(24):yyyy-MM-dd}");

        _screen.OpenCircuit("WP-303");
        _screen.ClickText("Trends");
        _screen.See("Insulation at 40 °C, M1 U-PE");
        // IEEE 43, from memory: 40 MOhm at 20 °C are 10 MOhm at 40 °C.
        _screen.See("10 MΩ");
        _screen.Find("canvas[role=img]");
    }

    [Fact]
    public void A_shutdown_is_packed_and_ticked_off_on_the_spot()
    {
        _screen.Open("/shutdowns");
        _screen.Type("[placeholder='Saturday, kilns']", "Kilns in December");
        _screen.Type(".window label:nth-of-type(6) input", "730");
        _screen.ClickText("Pack it");
        _screen.See("Kilns in December");
        _screen.See("Person 1");
        _screen.See("off, locked, proved dead");
        _screen.See("0 of ");
        _screen.ClickText("Do it");
        _screen.ClickText("Done");
        _screen.See("1 of ");
    }

    [Fact]
    public void A_wish_that_makes_no_sense_is_refused_beside_the_form()
    {
        _screen.Open("/shutdowns");
        _screen.Type(".window label:nth-of-type(4) input", "four");
        _screen.ClickText("Pack it");
        _screen.See("Hours are a number");
    }

    [Fact]
    public void A_spare_is_put_on_the_shelf()
    {
        _screen.Open("/spares");
        _screen.Type(".search", "overload relay");
        _screen.Until(() => Rows() > 0 && _screen.Shows("overload relay"), "overload relays");
        _screen.ClickText("Open");
        _screen.Type("[role=dialog] label:nth-of-type(2) input", "3");
        _screen.Type("[role=dialog] label:nth-of-type(3) input", "drawer 12");
        _screen.ClickText("Keep");
        _screen.See("drawer 12");
    }

    [Fact]
    public void A_bar_opens_the_logbook_at_its_jobs()
    {
        _screen.Open("/insight");
        _screen.See("Worst circuits");
        _screen.Click("[aria-label='By device'] a");
        _screen.See("found:");
        _screen.Until(() => Rows() > 0, "the jobs");
        _screen.ClickText("Where the time goes");
        _screen.See("What comes back");
    }

    [Fact]
    public void An_interval_of_the_plant_is_set_and_taken_back()
    {
        _screen.Open("/plan/intervals");
        _screen.Type("[aria-label='Months between two here: Lamps light']", "6" + Keys.Tab);
        _screen.Open("/plan");
        _screen.Type(".search", "lamps light");
        _screen.See("every 6 months (the plant's own)");
    }

    private int Rows() => _screen.Driver.FindElements(By.CssSelector("tbody tr[data-p-index], tbody tr")).Count(r => r.Displayed);
}
