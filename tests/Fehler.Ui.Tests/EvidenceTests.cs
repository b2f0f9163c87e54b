using System.Net.Http.Json;
using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>Evidence other than volts and ohms, and tests that cannot be made now, on the job screen.</summary>
public sealed class EvidenceTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    public EvidenceTests() => _screen = new Screen(_app.Address);

    private const string Meter = "input[aria-label='What the meter shows']";

    [Fact]
    public void A_clamp_goes_around_one_lead_and_its_reading_is_in_amps()
    {
        Begin();
        _screen.ClickText("A~");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("button.lead")).Count == 1, "one lead only");
        _screen.Driver.ExecuteScript(
            "document.querySelector(\"[data-terminal='F2:2']\").dispatchEvent(new MouseEvent('click', {bubbles: true}))"
        );
        _screen.Until(() => _screen.Find(".lead strong").Text == "F2:2", "the clamp at F2:2");
        _screen.Type(Meter, "0");
        _screen.ClickText("Record");
        _screen.See("Journal (6)");
        _screen.ClickText("Journal (6)");
        _screen.See("clamp at F2:2: 0 A");
    }

    /// <summary>Three voltages as one set: judged together while they are typed, recorded as three readings.</summary>
    [Fact]
    public void Three_lines_are_judged_as_one_set_and_stand_in_the_journal_one_by_one()
    {
        Begin();
        _screen.ClickText("Three lines at once");
        _screen.Type("input[aria-label='Line 1']", "401");
        _screen.Type("input[aria-label='Line 2']", "399");
        _screen.Type("input[aria-label='Line 3']", "four");
        _screen.See("is not a reading");
        _screen.Find("input[aria-label='Line 3']").Clear();
        _screen.Type("input[aria-label='Line 3']", "332");
        _screen.See("a motor is not to run on that");
        _screen.Driver.FindElement(By.CssSelector("[role=dialog] input[aria-label='Line 3']")).Clear();
        _screen.Type("input[aria-label='Line 3']", "398");
        _screen.See("unbalance 0.");
        _screen.ClickText("Record all three");
        _screen.See("Journal (8)");
    }

    [Fact]
    public void A_reading_nobody_is_sure_of_is_recorded_as_that_and_another_test_is_proposed()
    {
        Begin();
        var asked = string.Join(" ", _screen.Driver.FindElements(By.CssSelector(".lead strong")).Select(e => e.Text));
        _screen.ClickText("not sure");
        _screen.See("Journal (6)");
        _screen.Until(
            () => string.Join(" ", _screen.Driver.FindElements(By.CssSelector(".lead strong")).Select(e => e.Text)) != asked,
            "another test"
        );
        _screen.ClickText("Journal (6)");
        _screen.See("not sure");
    }

    [Fact]
    public void Tests_that_cannot_be_made_now_are_left_out_until_they_can()
    {
        Begin();
        _screen.Find("section[data-quantity='volts']");
        _screen.ClickText("What cannot be done now");
        _screen.Click("input[type=checkbox][value=live]");
        _screen.See("(1 left out)");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("section[data-quantity='volts']")).Count == 0, "no live test");
        _screen.Driver.Navigate().Refresh();
        _screen.See("(1 left out)");
        _screen.ClickText("What cannot be done now");
        _screen.Click("input[type=checkbox][value=live]");
        _screen.Find("section[data-quantity='volts']");
    }

    [Fact]
    public void A_proposed_trial_is_recorded_from_its_card_without_choosing_it_again()
    {
        _screen.OpenCircuit("DX-202");
        _screen.ClickText("It does not work");
        _screen.Type("#complaint", "Does not start");
        _screen.ClickText("Open the job");
        _screen.ClickText("First: agree to live tests");
        _screen.TickAll("I work live");
        _screen.ClickText("Done: say what was seen");
        _screen.See("S2 pressed");
        _screen.SawOf("KM1", "buzzes");
        _screen.ClickText("Record what it did");
        _screen.See("Journal (3)");
        _screen.ClickText("Journal (3)");
        _screen.See("S2 pressed");
    }

    /// <summary>
    /// The trial that is asked for shows what to watch; one touch says that nothing happened, and the journal with it and the next test stand there
    /// without looking for them.
    /// </summary>
    [Fact]
    public void Nothing_happened_is_one_touch_and_the_next_test_stands_there()
    {
        _screen.OpenCircuit("DX-202");
        _screen.ClickText("It does not work");
        _screen.Type("#complaint", "Does not start");
        _screen.ClickText("Open the job");
        _screen.ClickText("First: agree to live tests");
        _screen.TickAll("I work live");
        _screen.ClickText("Done: say what was seen");
        _screen.Find("[data-seen='KM1']");
        _screen.ClickText("Nothing happened");
        _screen.See("Journal (3)");
        _screen.See("KM1 out");
        _screen.Until(
            () => _screen.Driver.FindElements(By.CssSelector(".lead strong")).Count(e => e.Text.Contains(':')) == 2,
            "both leads of the next test"
        );
    }

    /// <summary>Nothing has to be operated to say how it stands, and what people say is one touch.</summary>
    [Fact]
    public async Task How_it_stands_and_what_people_say_are_recorded_without_operating_anything()
    {
        _screen.OpenTheOpenJob();
        _screen.ClickText("Tried and seen");
        _screen.ClickText("Somebody worked on it");
        _screen.See("Journal (5)");
        _screen.SawOf("H1", "on");
        _screen.Click("[data-seen='M1']");
        _screen.ClickText("Nobody looked at it");
        _screen.See("M1 not looked at");
        // What another screen records meanwhile has the diagnosis made anew: what was chosen here stays chosen.
        using (var http = new HttpClient { BaseAddress = new Uri(_app.Address) })
        {
            var job = new Uri(_screen.Driver.Url).AbsolutePath;
            using var told = await http.PostAsJsonAsync(
                $"/api{job}/entries",
                new { type = "told", what = "water" },
                TestContext.Current.CancellationToken
            );
            told.IsSuccessStatusCode.ShouldBeTrue();
        }

        _screen.See("Journal (6)");
        _screen.Until(
            () => _screen.Driver.FindElements(By.CssSelector("section[aria-label='Next test'][aria-busy='false']")).Count > 0,
            "the diagnosis made anew"
        );
        _screen.Shows("M1 not looked at").ShouldBeTrue();
        _screen.ClickText("Record what it did");
        _screen.See("Journal (7)");
        _screen.ClickText("Journal (7)");
        _screen.See("Told: Somebody worked on it");
        _screen.See("As it stands: H1 on");
        _screen.Shows("H1 on, M1").ShouldBeFalse();
    }

    private void Begin()
    {
        _screen.OpenTheOpenJob();
        _screen.ClickText("First: agree to live tests");
        _screen.TickAll("I work live");
        _screen.Find(Meter);
    }

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }
}
