using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Core.Circuits;
using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>
/// From a proved fault to its repair, what an answer would leave, and what is done to terminals and meters, in the browser.
/// </summary>
public sealed class RepairTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;
    private readonly HttpClient _http;

    private const string Meter = "input[aria-label='What the meter shows']";

    public RepairTests()
    {
        _screen = new Screen(_app.Address);
        _http = new HttpClient { BaseAddress = new Uri(_app.Address) };
    }

    /// <summary>
    /// A coil proved open: the guide says what to bring, its causes go into the record with a touch, and all of it stays.
    /// </summary>
    [Fact]
    public void A_proved_coil_is_repaired_by_its_guide_and_the_cause_goes_into_the_record()
    {
        var job = OpenedJob("IN-101");
        Add(
            job,
            new
            {
                type = "operation",
                steps = new[] { Step("S2", "pressed") },
                seen = new Dictionary<string, string> { ["KM1"] = "out", ["M1"] = "stopped" },
            }
        );
        Add(job, Read("volts", "KM1:A1", "INC:N", new { kind = "number", number = 229 }, Step("S2", "pressed")));
        Dead(job);
        _screen.Open($"/jobs/{job}");
        // The proof is made on the screen: tap both ends of the coil, OL is one touch.
        _screen.Until(
            () => _screen.Driver.FindElements(By.CssSelector("section[aria-label='Next test'][aria-busy='false']")).Count > 0,
            "a proposal"
        );
        Tap("KM1:A1");
        _screen.Click("button.lead:nth-of-type(2)");
        Tap("KM1:A2");
        _screen.Click("[aria-label='Meter setting'] button[aria-label='ohms'], [aria-label='Meter setting'] button:nth-child(3)");
        _screen.ClickText("OL");
        _screen.See("Proved by its own reading");
        _screen.ClickText("How to repair it, parts, causes");
        _screen.See("Coil for KM1: 230 V AC, same type");
        _screen.ClickText("Repair and close out");
        _screen.See("OL, where a good one has about");
        _screen.See("Open Q1, lock off, prove dead");
        _screen.Click("button[title^='Write down as the cause: The magnet does not close']");
        _screen.Until(
            () =>
                _screen.Find("#cause").GetDomProperty("value") is { } cause
                && cause.StartsWith("The magnet does not close", StringComparison.Ordinal),
            "the cause taken over"
        );
        _screen.ClickText("Record the finding");
        _screen.See("Found: Coil of KM1 is open");
        _screen.ClickText("Record the repair");
        _screen.See("(cause: The magnet does not close");
    }

    /// <summary>
    /// A screwdriver in a live panel is what this is all about: the repair is taken once the panel is proved dead, or with the reason why that
    /// was not needed.
    /// </summary>
    [Fact]
    public void A_repair_on_a_live_panel_is_asked_about()
    {
        var job = OpenedJob("IN-101");
        Add(
            job,
            new
            {
                type = "finding",
                unit = "F2",
                text = "Set too low",
            }
        );
        _screen.Open($"/jobs/{job}/close-out");
        _screen.Choose("unit", "F2 ");
        _screen.Type("#action", "Dial put to 11.2 A");
        _screen.See("Hands go into a panel that is isolated and proved dead");
        _screen.Driver.FindElement(By.XPath("//button[contains(., 'Record the repair')]")).Enabled.ShouldBeFalse();
        _screen.ClickText("A setting or a reset from outside");
        _screen.ClickText("Record the repair");
        _screen.See("Repaired F2: Dial put to 11.2 A; not isolated for it: A setting or a reset from outside");

        Dead(job);
        _screen.Open($"/jobs/{job}/close-out");
        _screen.See("ISOLATED AND PROVED DEAD");
        _screen.Shows("Hands go into a panel").ShouldBeFalse();
    }

    /// <summary>The same guide in North American words, with the symbols of that school.</summary>
    [Fact]
    public void The_ladder_school_has_its_own_words()
    {
        var job = OpenedJob("IN-101");
        Add(
            job,
            new
            {
                type = "operation",
                steps = new[] { Step("S2", "pressed") },
                seen = new Dictionary<string, string> { ["KM1"] = "out", ["M1"] = "stopped" },
            }
        );
        Dead(job);
        Add(job, Read("ohms", "KM1:A1", "KM1:A2", new { kind = "overLimit", number = 0 }));
        _screen.Open($"/jobs/{job}/close-out");
        _screen.See("what is in parallel (lamp, suppressor)");
        _screen.Open($"/jobs/{job}");
        _screen.Pick("Symbols of the drawing", "Ladder");
        _screen.Open($"/jobs/{job}/close-out");
        _screen.See("what is in parallel (light, suppressor)");
    }

    [Fact]
    public void Touching_an_answer_shows_in_the_drawing_what_it_would_leave()
    {
        _screen.OpenTheOpenJob();
        var before = Shaded();
        _screen.ClickText("Why this, and what each answer would leave");
        _screen.Click("button.outcome");
        _screen.See("shaded is what that would leave");
        _screen.Until(() => Shaded() != before, "another shading");
        _screen.Click("button.outcome[aria-pressed=true]");
        _screen.Until(() => Shaded() == before, "the shading as it was");
        _screen.Shows("shaded is what that would leave").ShouldBeFalse();
    }

    [Fact]
    public void A_meter_found_wrong_takes_its_readings_with_it_and_they_stay_to_be_seen()
    {
        _screen.OpenTheOpenJob();
        _screen.ClickText("First: agree to live tests");
        _screen.TickAll("I work live");
        _screen.Find(Meter);
        _screen.Find("section[aria-label='Next test'][aria-busy='false']");
        _screen.Until(() => Suspects().Length > 0, "the suspects");
        var before = Suspects();
        _screen.Type(Meter, "0");
        _screen.ClickText("Record");
        _screen.See("Journal (6)");
        _screen.Until(() => Suspects() != before, "other suspects");
        _screen.ClickText("The meter");
        _screen.ClickText("Meter was wrong");
        _screen.See("Journal (7)");
        _screen.Until(() => Suspects() == before, "the suspects as before");
        _screen.ClickText("Journal (7)");
        _screen.See("(the meter was found wrong)");
        _screen.See("found wrong");
    }

    /// <summary>A screwdriver only on a dead circuit; that the screw was loose is written down and counts.</summary>
    [Fact]
    public void A_loose_screw_is_found_on_a_dead_circuit_and_recorded()
    {
        var job = OpenedJob("IN-101");
        Add(
            job,
            new
            {
                type = "operation",
                steps = new[] { Step("S2", "pressed") },
                seen = new Dictionary<string, string> { ["KM1"] = "out", ["M1"] = "stopped" },
            }
        );
        _screen.Open($"/jobs/{job}");
        OpenWire("3");
        _screen.See("Try a screw");
        _screen.Find("button[aria-label='S1:22 was loose, now tight']").Enabled.ShouldBeFalse();
        Dead(job);
        _screen.Open($"/jobs/{job}");
        OpenWire("3");
        _screen.Until(() => _screen.Find("button[aria-label='S1:22 was loose, now tight']").Enabled, "the screw on offer");
        _screen.Click("button[aria-label='S1:22 was loose, now tight']");
        _screen.Keys(Keys.Escape);
        _screen.See("Journal (6)");
        _screen.ClickText("Journal (6)");
        _screen.See("Screw of S1:22: was loose, tightened");
    }

    /// <summary>An insulation tester's number is in megohm, and is kept as such.</summary>
    [Fact]
    public void Insulation_is_typed_as_the_tester_shows_it()
    {
        var job = OpenedJob("IN-101");
        Dead(job);
        _screen.Open($"/jobs/{job}");
        _screen.Until(
            () => _screen.Driver.FindElements(By.CssSelector("section[aria-label='Next test'][aria-busy='false']")).Count > 0,
            "a proposal"
        );
        Tap("M1:U");
        _screen.ClickText("MΩ");
        _screen.Type(Meter, "0,15");
        _screen.ClickText("Record");
        // To the neutral, above the isolator, nothing of this circuit leads: that is asked about before it counts.
        _screen.ClickText("It shows that: record it");
        _screen.See("Journal (5)");
        _screen.ClickText("Journal (5)");
        _screen.See("insulation: 150 kΩ");
    }

    private string Suspects() =>
        string.Join("|", _screen.Driver.FindElements(By.CssSelector("section[aria-label=Suspects] summary .share")).Select(e => e.Text));

    private string Shaded() =>
        string.Join("|", _screen.Driver.FindElements(By.CssSelector("svg.drawing .share, svg.drawing .suspicion")).Select(e => e.Text));

    private void Tap(string terminal) =>
        _screen.Driver.ExecuteScript(
            $"document.querySelector(\"[data-terminal='{terminal}']\").dispatchEvent(new MouseEvent('click', {{bubbles: true}}))"
        );

    private void OpenWire(string wire)
    {
        _screen.Find(".wire-number");
        _screen.Driver.ExecuteScript(
            $"[...document.querySelectorAll('.wire-number')].find(g => g.textContent.trim() === '{wire}').dispatchEvent(new "
                + $"MouseEvent('click', {{bubbles: true}}))"
        );
    }

    private static object Step(string device, string position) =>
        new
        {
            device,
            position,
            seconds = 0,
        };

    private static object Read(string quantity, string from, string to, object value, params object[] held) =>
        new
        {
            type = "reading",
            quantity,
            from,
            to,
            held,
            value,
            meter = "",
        };

    private string OpenedJob(string tag)
    {
        using var circuits = JsonDocument.Parse(_http.GetStringAsync("/api/circuits?take=200").GetAwaiter().GetResult());
        var rows = circuits.RootElement.ValueKind == JsonValueKind.Array ? circuits.RootElement : circuits.RootElement.GetProperty("items");
        var id = rows.EnumerateArray().First(c => c.GetProperty("tag").GetString() == tag).GetProperty("id").GetString();
        using var job = JsonDocument.Parse(
            Post(
                "/api/jobs",
                new
                {
                    circuitId = id,
                    complaint = "Does not start",
                    who = "R. Halvar",
                }
            )
        );
        var opened = job.RootElement.GetProperty("id").GetString()!;
        Add(opened, new { type = "liveWorkAcknowledged" });
        return opened;
    }

    private void Dead(string job)
    {
        Add(job, new { type = "isolated", points = new[] { "Q1" } });
        Add(
            job,
            new
            {
                type = "provedDead",
                detectorCheckedBefore = true,
                detectorCheckedAfter = true,
            }
        );
    }

    private void Add(string job, object entry) => Post(string.Create(CultureInfo.InvariantCulture, $"/api/jobs/{job}/entries"), entry);

    private string Post(string path, object body)
    {
        using var answer = _http.PostAsJsonAsync(path, body).GetAwaiter().GetResult();
        var text = answer.Content.ReadAsStringAsync().GetAwaiter().GetResult();
        answer.IsSuccessStatusCode.ShouldBeTrue(text);
        return text;
    }

    public void Dispose()
    {
        _http.Dispose();
        _screen.Dispose();
        _app.Dispose();
    }
}
