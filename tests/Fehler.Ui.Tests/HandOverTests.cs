using System.Net.Http.Json;
using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>
/// A job from what the caller says to the hand-over, on the screen: proved dead by a table of readings, left isolated, said in red where the next
/// person looks first; and two screens on one job.
/// </summary>
public sealed class HandOverTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    private const string Meter = "input[aria-label='What the meter shows']";

    public HandOverTests() => _screen = new Screen(_app.Address);

    [Fact]
    public void A_job_opened_in_touches_is_proved_dead_by_its_table_and_handed_over_in_red()
    {
        OpenedByTouch("WP-301", "S2-pressed-not");
        _screen.See("Start (S2): does not start");
        _screen.See("units are still possible");
        _screen.ClickText("Isolate");
        _screen.TickAll("It is isolated and locked");
        _screen.See("locks: R. Halvar");
        _screen.ClickText("Prove dead");

        // One pair still shows the supply: that is no proof, and the dialog says so beside the button.
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("[data-dead=volts]")).Count > 0, "the table");
        _screen.Type("[data-dead=volts]", "230");
        _screen.TickAll("It is dead");
        _screen.See("that is not dead");
        _screen.Type("[data-dead=volts]", "0");
        _screen.ClickText("It is dead");
        _screen.See("ISOLATED AND PROVED DEAD");

        _screen.ClickText("Repair and close out");
        _screen.See("Isolated at Q1, locked by R. Halvar.");
        _screen.ClickText("Nothing found");
        _screen.Type("#closing-text", "end of the shift");
        _screen.ClickText("Close the job");
        _screen.See("Switch it on again, or hand the job over");
        _screen.ClickText("Handed over");
        _screen.ClickText("Close the job");
        _screen.Until(() => _screen.Driver.Url.EndsWith("close-out", StringComparison.Ordinal) ? null : "left", "the job closed");
        _screen.OpenCircuit("WP-301");
        _screen.See("Handed over, not as it should be");
        _screen.See("Isolated at Q1");

        // Whoever opens the next job finds it in the journal.
        _screen.ClickText("It does not work");
        _screen.Type("#complaint", "still dead");
        _screen.ClickText("Open the job");
        _screen.ClickText("Journal");
        _screen.See("Handed over before this: Isolated at Q1");
    }

    [Fact]
    public async Task Another_persons_lock_holds_until_the_procedure_takes_it_off()
    {
        OpenedByTouch("WP-301", "S2-pressed-not");
        _screen.ClickText("Isolate");
        _screen.TickAll("It is isolated and locked");
        _screen.See("locks: R. Halvar");
        var job = new Uri(_screen.Driver.Url).AbsolutePath;
        using var http = new HttpClient { BaseAddress = new Uri(_app.Address) };
        using var answer = await http.PostAsJsonAsync(
            $"/api{job}/entries",
            new { type = "lockHung", who = "Ben" },
            TestContext.Current.CancellationToken
        );
        answer.IsSuccessStatusCode.ShouldBeTrue();
        _screen.See("locks: Ben, R. Halvar");
        _screen.ClickText("Switch on");
        _screen.TickAll("It is switched on");
        _screen.See("Ben has a lock");
        _screen.Click("[role=dialog] .p-dialog-close-button");
        _screen.ClickText("Ben gone");
        _screen.Type("#lock-reason", "went home, the shift lead decided");
        _screen.ClickText("It is off by the site");
        _screen.Until(() => !_screen.Shows("locks: Ben"), "the lock is off");
        _screen.ClickText("Switch on");
        _screen.TickAll("It is switched on");
        _screen.Until(() => _screen.Find(".state").Text.Trim() == "LIVE", "switched on");
    }

    /// <summary>A value that is being typed belongs to the test that it was begun at, whatever another screen records meanwhile.</summary>
    [Fact]
    public void What_is_half_typed_is_recorded_where_it_was_begun()
    {
        OpenedByTouch("WP-301", "S2-pressed-not");
        _screen.ClickText("Live tests");
        _screen.TickAll("I work live");
        Ready();
        // Look proposals come first on some circuits: take a reading of one's own.
        Tap("F3:2");
        var lead = _screen.Find("button.lead").Text;
        _screen.Type(Meter, "23");
        using var other = new Screen(_app.Address);
        other.Open(new Uri(_screen.Driver.Url).AbsolutePath);
        other.Until(
            () => other.Driver.FindElements(By.CssSelector("section[aria-label='Next test'][aria-busy='false']")).Count > 0,
            "ready"
        );
        other.ClickText("Journal");
        other.Type("input[aria-label='Note']", "told the operator");
        other.ClickText("Note");
        _screen.See("Journal (5)");
        _screen.Find("button.lead").Text.ShouldBe(lead);
        _screen.Find(Meter).GetDomProperty("value").ShouldBe("23");
        _screen.Find(Meter).SendKeys("1" + Keys.Enter);
        _screen.See("F3:2 – INC:N: 231 V");
    }

    /// <summary>What nothing explains is asked about; it counts when it is meant.</summary>
    [Fact]
    public void A_reading_that_nothing_explains_is_asked_about_first()
    {
        OpenedByTouch("WP-301", "S2-pressed-not");
        _screen.ClickText("Live tests");
        _screen.TickAll("I work live");
        Ready();
        Tap("F3:2");
        _screen.Type(Meter, "480" + Keys.Enter);
        _screen.See("Are both leads where they are drawn");
        _screen.Shows("F3:2 – INC:N: 480 V").ShouldBeFalse();
        _screen.ClickText("It shows that: record it");
        _screen.See("F3:2 – INC:N: 480 V");
    }

    private void Ready() =>
        _screen.Until(
            () => _screen.Driver.FindElements(By.CssSelector("section[aria-label='Next test'][aria-busy='false']")).Count > 0,
            "a proposal"
        );

    private void OpenedByTouch(string tag, string symptom)
    {
        _screen.OpenCircuit(tag);
        _screen.ClickText("It does not work");
        _screen.Click($"[data-symptom='{symptom}']");
        _screen.Type("#caller", "R. Halvar");
        _screen.ClickText("Open the job");
        _screen.See("TREAT AS LIVE");
    }

    private void Tap(string terminal)
    {
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector($"[data-terminal='{terminal}']")).Count > 0, terminal);
        _screen.Driver.ExecuteScript(
            $"document.querySelector(\"[data-terminal='{terminal}']\").dispatchEvent(new MouseEvent('click', {{bubbles: true}}))"
        );
    }

    /// <summary>A cover that is off stands on the card until it is undone, and the job is not closed with it.</summary>
    [Fact]
    public void What_is_done_for_the_time_being_stands_there_until_it_is_undone()
    {
        _screen.OpenTheOpenJob();
        _screen.ClickText("Cover off, bridge, tape");
        _screen.Type("#makeshift", "door of the panel");
        _screen.ClickText("Bridge is in");
        _screen.See("isolate and prove dead first");
        _screen.Type("#makeshift", "door of the panel");
        _screen.ClickText("Cover is off");
        _screen.See("Cover off: door of the panel");
        _screen.ClickText("Undone");
        _screen.See("Cover back on: door of the panel");
    }

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }
}
