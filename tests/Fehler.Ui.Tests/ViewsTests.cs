using Fehler.Core.Circuits;
using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>The views besides the job's main line: what a person finds where, and what stays safe.</summary>
public sealed class ViewsTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    public ViewsTests() => _screen = new Screen(_app.Address);

    [Fact]
    public void The_register_finds_by_typing_and_says_when_nothing_matches()
    {
        _screen.Open("/");
        _screen.See("Dust extraction fan");
        _screen.Type(".search", "pump house sprinkler");
        _screen.Until(() => Rows() == 3, "the sprinkler's pumps");
        _screen.Type(".search", "zzz");
        _screen.See("Nothing in the register matches");
    }

    [Fact]
    public void A_circuit_shows_its_reading_sheet_parts_and_history()
    {
        _screen.OpenCircuit("WP-301");
        _screen.Driver.FindElements(By.CssSelector("[data-terminal]")).Count.ShouldBeGreaterThan(30);
        _screen.ClickText("Reading sheet");
        _screen.Type("input[aria-label='Find in the reading sheet']", "KM1 A1");
        _screen.Until(() => Rows() == 1, "the coil's row");
        _screen.See("180 Ω to 1.7 kΩ");
        _screen.ClickText("Parts and settings");
        _screen.See("Rated coil voltage");
        _screen.See("Nameplate current at that voltage");
        _screen.ClickText("History");
        _screen.See("Pump runs only while Start is held");
        _screen.See("repaired and proved");
    }

    [Fact]
    public void A_tapped_terminal_of_a_circuit_shows_what_is_landed_on_it()
    {
        _screen.OpenCircuit("IN-101");
        Tap("S1:21");
        _screen.See("2.1");
        _screen.See("Infeed desk");
    }

    [Fact]
    public void A_job_is_opened_only_once_something_was_reported()
    {
        _screen.OpenCircuit("WP-301");
        _screen.ClickText("It does not work");
        _screen.See("What is known beside it");
        _screen.Find("[role=dialog] button[type=submit]").Enabled.ShouldBeFalse();
        _screen.Click("[data-symptom$='-held']");
        _screen.Until(() => _screen.Find("[role=dialog] button[type=submit]").Enabled, "something was reported");
    }

    [Fact]
    public void The_logbook_filters_open_and_closed_jobs_and_leads_to_the_journal()
    {
        _screen.Open("/logbook");
        _screen.See("Fan dead after a night storm");
        _screen.ClickText("Open");
        _screen.Until(() => Rows() == 1, "one open job");
        _screen.ClickText("Closed");
        _screen.Until(() => Rows() == 6, "six closed jobs");
        _screen.Type(".search", "night storm");
        _screen.Until(() => Rows() == 1, "one job");
        _screen.ClickText("Fan dead after a night storm");
        // What is closed is read as a report, and its journal is one step further.
        _screen.See("Found: Coil of KM1 is open (Extraction panel)");
        _screen.See("repaired and proved");
        _screen.Find("svg.drawing");
        _screen.ClickText("To the job");
        _screen.See("closed");
        _screen.ClickText("Journal");
        _screen.See("Repaired KM1: Coil replaced, 230 V");
        _screen.Driver.FindElements(By.CssSelector("input[aria-label='Note']")).ShouldBeEmpty();
    }

    [Fact]
    public void An_entry_is_struck_out_with_a_reason_and_stays_visible()
    {
        _screen.OpenTheOpenJob();
        _screen.ClickText("Journal (4)");
        _screen.Click("button[aria-label^='Strike out: Looked: Trip flag of F2']");
        _screen.Type("#reason", "looked at the wrong relay");
        _screen.Click("[role=dialog] .actions button");
        _screen.See("Struck out: looked at the wrong relay");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector(".struck")).Count == 1, "the entry struck through");
    }

    [Fact]
    public void Isolating_and_proving_dead_take_every_check_and_a_wire_is_lifted_counted_and_landed()
    {
        _screen.OpenTheOpenJob();
        _screen.ClickText("Isolate");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("[role=dialog] input[type=checkbox]")).Count == 3, "three checks");
        _screen.Find("[role=dialog] .p-button:not(.p-dialog-close-button)").Enabled.ShouldBeFalse();
        _screen.TickAll("It is isolated and locked");
        _screen.See("ISOLATED, NOT PROVED – TREAT AS LIVE");
        _screen.ClickText("Prove dead");
        _screen.TickAll("It is dead");
        _screen.See("ISOLATED AND PROVED DEAD");
        _screen.Driver.ExecuteScript(
            "[...document.querySelectorAll('.wire-number')].find(g => g.textContent.trim() === '3').dispatchEvent(new "
                + "MouseEvent('click', {bubbles: true}))"
        );
        _screen.ClickText("Lift 3.1 at S0:12");
        _screen.See("1 wire lifted: 3.1");
        _screen.ClickText("Landed again");
        _screen.Until(() => !_screen.Shows("wire lifted"), "no wire lifted");
    }

    [Fact]
    public void Keys_set_the_meter_change_the_panel_and_explain_themselves()
    {
        _screen.OpenTheOpenJob();
        _screen.Find(".state").Click();
        _screen.Keys("j");
        _screen.See("Reported: Chipper feed runs only while Start is held");
        _screen.Keys("t");
        _screen.See("Look first, hands out");
        _screen.Keys("s");
        _screen.See("units are still possible");
        _screen.Keys("?");
        _screen.See("record the reading; also OL, full, beep, stray");
    }

    [Fact]
    public void The_reason_of_a_suspicion_opens_with_evidence_for_it()
    {
        _screen.OpenTheOpenJob();
        _screen.Click("section[aria-label='Suspects'] summary");
        _screen.See("S2 released: KM1 out, M1 stopped");
        _screen.ClickText("Why this, and what each answer would leave");
        _screen.See("bits still open");
    }

    /// <summary>The job fills the window: nothing scrolls but its regions, and the drawing has gone to the leads.</summary>
    [Theory]
    [InlineData(1280, 800)]
    [InlineData(1920, 1080)]
    [InlineData(390, 844)]
    public void The_job_fits_the_window_and_the_drawing_goes_to_both_leads(int width, int height)
    {
        _screen.Resize(width, height);
        _screen.OpenTheOpenJob();
        var window = (Width: Number("innerWidth"), Height: Number("innerHeight"));
        Number("document.scrollingElement.scrollHeight").ShouldBeLessThanOrEqualTo(window.Height);
        Number("document.scrollingElement.scrollWidth").ShouldBeLessThanOrEqualTo(window.Width);
        var frame = _screen.Find("section[aria-label='Drawing']");
        foreach (var lead in _screen.Driver.FindElements(By.CssSelector(".lead strong")).Select(e => e.Text).ToList())
        {
            _screen.Until(
                () =>
                    _screen
                        .Driver.FindElements(By.CssSelector($"[data-terminal='{lead}']"))
                        .Any(t => Middle(t) is var (x, y) && IsIn(frame, x, y)),
                $"{lead} in the drawing's window"
            );
        }

        var card = _screen.Find("section[aria-label='Next test']");
        (card.Location.Y + card.Size.Height).ShouldBeLessThanOrEqualTo((int)window.Height);
        if (width > 1000)
        {
            foreach (var region in new[] { "Suspects", "Journal" })
            {
                var sheet = _screen.Find($"section[aria-label='{region}']");
                sheet.Location.Y.ShouldBeInRange(1, (int)window.Height - 60, region);
            }
        }
        else
        {
            card.Location.Y.ShouldBeGreaterThanOrEqualTo(frame.Location.Y + frame.Size.Height);
            var tabs = _screen.Driver.FindElements(By.CssSelector("[role=tab]"));
            tabs.Select(t => t.Size.Height).Min().ShouldBeGreaterThanOrEqualTo(48);
            _screen.ClickText("Suspects");
            _screen.See("units are still possible");
        }

        static bool IsIn(IWebElement box, double x, double y) =>
            x > box.Location.X && x < box.Location.X + box.Size.Width && y > box.Location.Y && y < box.Location.Y + box.Size.Height;
        (double, double) Middle(IWebElement e)
        {
            var at = (System.Collections.ObjectModel.ReadOnlyCollection<object>)
                _screen.Driver.ExecuteScript(
                    "const r = arguments[0].getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2]",
                    e
                )!;
            return (Convert.ToDouble(at[0], null), Convert.ToDouble(at[1], null));
        }

        double Number(string script) => Convert.ToDouble(_screen.Driver.ExecuteScript($"return {script}"), null);
    }

    [Fact]
    public void An_address_that_leads_nowhere_says_so()
    {
        _screen.Open("/somewhere/else");
        _screen.See("This address leads nowhere");
        _screen.Open($"/jobs/{Guid.NewGuid()}");
        _screen.See("There is no such job");
    }

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }

    private int Rows() => _screen.Driver.FindElements(By.CssSelector("tbody tr")).Count(r => r.FindElements(By.TagName("td")).Count > 1);

    /// <summary>A photo is made small in the browser, kept with what was typed as its caption, and shown in the job and its report.</summary>
    [Fact]
    public void A_photo_is_taken_into_the_job_and_its_report()
    {
        var photo = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():N}.png");
        try
        {
            _screen.OpenTheOpenJob();
            _screen.ClickText("Journal");
            _screen.Type("input[aria-label='Note']", "burnt clamp");
            File.WriteAllText(photo, "no picture");
            _screen.Driver.FindElement(By.CssSelector("input[type='file']")).SendKeys(photo);
            _screen.See("That is no picture that this browser can open");
            File.WriteAllBytes(photo, Convert.FromBase64String(Screen.OnePoint));
            _screen.Driver.FindElement(By.CssSelector("input[type='file']")).SendKeys(photo);
            _screen.See("Photo: burnt clamp");
            bool IsShown() =>
                _screen.Driver.ExecuteScript(
                    "const i = document.querySelector('.photo img'); return !!i && i.src.includes('/api/photos/') && i.naturalWidth > 0"
                )
                    is true;
            _screen.Until(IsShown, "the photo in the journal, from the service");
            var job = new Uri(_screen.Driver.Url).AbsolutePath;
            _screen.Open($"{job}/report");
            _screen.See("burnt clamp");
            _screen.Driver.ExecuteScript("document.querySelector('.photo').scrollIntoView()");
            _screen.Until(IsShown, "the photo in the report");
        }
        finally
        {
            File.Delete(photo);
        }
    }

    [Fact]
    public void What_is_still_to_do_stands_on_its_circuit_and_in_the_list_until_it_is_done()
    {
        _screen.OpenCircuit("IN-101");
        _screen.ClickText("Still to do");
        _screen.Type("[aria-label='What is still to be done']", "order a push button");
        _screen.ClickText("Note it");
        _screen.See("by which day");
        var day = DateTime.UtcNow.AddDays(7);
        _screen.Type("[aria-label='By which day']", day.ToString("yyyy-MM-dd", null) + Keys.Tab);
        _screen.ClickText("Note it");
        _screen.See("Still to do (1)");
        _screen.ClickText("Plan");
        _screen.Type(".search", "push button");
        _screen.See("order a push button");
        _screen.See(day.ToString("yyyy-MM-dd", null));
        _screen.ClickText("Do it");
        _screen.ClickText("Done");
        _screen.See("Nothing is due that matches");
    }

    /// <summary>A plant's list: what can be used stands in the register, what cannot is said with its line.</summary>
    [Fact]
    public void A_register_list_is_taken_in_row_by_row()
    {
        var list = Path.Combine(Path.GetTempPath(), $"list-{Guid.NewGuid():N}.csv");
        File.WriteAllText(list, "tag;title;family\nUX-1;Sump pump;\nUX-2;Mill;wind-mill\n");
        try
        {
            _screen.Open("/");
            _screen.See("IN-101");
            _screen.Driver.FindElement(By.CssSelector("input[type=file]")).SendKeys(list);
            _screen.See("1 of 2 starters");
            _screen.See("Line 3 UX-2: 'wind-mill' is no family");
            _screen.Type(".search", "UX-1");
            _screen.See("Sump pump");
        }
        finally
        {
            File.Delete(list);
        }
    }

    [Fact]
    public void Plates_are_held_against_motor_and_supply_on_the_page_of_a_circuit()
    {
        _screen.OpenCircuit("IN-101");
        _screen.ClickText("Parts and settings");
        _screen.See("Everything that can be compared fits");
        _screen.ClickText("What fits");
        _screen.See("the nameplate current of M1 in its place");
        _screen.See("Rated coil voltage");
    }

    /// <summary>A sum is worked out as one types, its formula with the numbers in it; nonsense is refused beside it.</summary>
    [Fact]
    public void A_sum_shows_its_formula_and_refuses_nonsense()
    {
        _screen.Open("/sums/full-load-current");
        _screen.See("14.5 A");
        _screen.See("7500 W / (√3 · 400 V · 0.88 · 0.85)");
        Give("Voltage", "500");
        _screen.See("11.6 A");
        Give("Voltage", "0");
        _screen.See("Voltage has to be more than 0.");
        _screen.ClickText("Load from the speed");
        _screen.See("75 %");
    }

    /// <summary>What a circuit's plates know is filled in, and a dial that was worked out is written into its description.</summary>
    [Fact]
    public void A_sum_is_filled_in_from_a_circuit_and_its_result_put_there()
    {
        _screen.OpenCircuit("IN-101");
        _screen.ClickText("Parts and settings");
        _screen.ClickText("Sums with the plates and settings of this circuit");
        _screen.See("IN-101");
        _screen.ClickText("Setting of the overload");
        _screen.See("Current on the dial of F2");
        Give("Rated current", "6.3");
        _screen.ClickText("Current on the dial of F2: 6.3 A");
        _screen.See("Written into IN-101");
        _screen.OpenCircuit("IN-101");
        _screen.See("version 2");
        _screen.ClickText("Parts and settings");
        _screen.See("its dial is at 6.3 A");
    }

    private void Give(string label, string value)
    {
        var field = _screen.Find($"input[aria-label='{label}']");
        field.Clear();
        field.SendKeys(value + Keys.Tab);
    }

    private void Tap(string terminal) =>
        _screen.Driver.ExecuteScript(
            $"document.querySelector(\"[data-terminal='{terminal}']\").dispatchEvent(new MouseEvent('click', {{bubbles: true}}))"
        );
}
