using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>What goes wrong at a panel: wrong keys, wrong files, two screens, a service that goes away.</summary>
public sealed class RoughHandlingTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    public RoughHandlingTests() => _screen = new Screen(_app.Address);

    private const string Meter = "input[aria-label='What the meter shows']";

    [Fact]
    public void Letters_for_a_number_are_refused_with_what_to_type_and_nothing_is_recorded()
    {
        _screen.OpenTheOpenJob();
        AcknowledgeLiveWork();
        _screen.Type(Meter, "lots");
        _screen.ClickText("Record");
        _screen.See("is not a reading. Type a number like 230");
        _screen.ClickText("Journal (5)");
    }

    [Fact]
    public void A_resistance_on_a_circuit_not_proved_dead_cannot_be_entered()
    {
        _screen.OpenTheOpenJob();
        AcknowledgeLiveWork();
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0, "no dialog");
        // Out of the field, so that a letter is a shortcut.
        _screen.Keys(Keys.Escape);
        _screen.Keys("o");
        _screen.See("First: isolate and lock off");
        _screen.Driver.FindElements(By.CssSelector(Meter)).ShouldBeEmpty();
    }

    [Fact]
    public void A_tapped_terminal_takes_the_lead_by_mouse_and_by_keyboard_and_the_touch_buttons_record()
    {
        _screen.OpenTheOpenJob();
        AcknowledgeLiveWork();
        _screen.Driver.ExecuteScript(
            "document.querySelector(\"[data-terminal='S1:22']\").dispatchEvent(new MouseEvent('click', {bubbles: true}))"
        );
        _screen.See("Your own reading");
        _screen.Find(".lead strong").Text.ShouldBe("S1:22");
        // The other lead stays where the proposed test had it.
        var other = _screen.Driver.FindElements(By.CssSelector("button.lead strong"))[1].Text;
        var tapped = other == "KM1:13" ? "S2:13" : "KM1:13";
        _screen.Driver.ExecuteScript($"document.querySelector(\"[data-terminal='{tapped}']\").focus()");
        _screen.Keys(Keys.Enter);
        _screen.Until(() => _screen.Find(".lead strong").Text == tapped, $"the lead on {tapped}");
        _screen.ClickText("full");
        _screen.See("Journal (6)");
        _screen.ClickText("Journal (6)");
        _screen.See($"{tapped} – {other}: full");
    }

    [Fact]
    public void A_circuit_file_cut_in_half_is_refused_by_line_and_a_whole_one_is_taken_in()
    {
        var text = File.ReadAllText(Path.Combine(RunningApp.Root, "demo", "circuits", "DX-201.circuit.json"));
        var half = Path.Combine(Directory.CreateTempSubdirectory("half").FullName, "half.json");
        File.WriteAllText(half, text[..(text.Length / 2)]);
        var renamed = half.Replace("half.json", "new.json", StringComparison.Ordinal);
        File.WriteAllText(renamed, text.Replace("DX-201", "DX-299", StringComparison.Ordinal));
        _screen.Open("/");
        _screen.See("Bring in a circuit, list or bundle");
        _screen.Driver.FindElement(By.CssSelector("input[type=file]")).SendKeys(half);
        _screen.See("half.json was not taken in. line ");
        _screen.Driver.FindElement(By.CssSelector("input[type=file]")).SendKeys(renamed);
        _screen.See("DX-299 is in the register");
    }

    [Fact]
    public void Two_tabs_on_one_job_see_each_others_entries_and_a_closed_job_takes_no_more()
    {
        _screen.OpenTheOpenJob();
        var address = _screen.Driver.Url;
        var first = _screen.Driver.CurrentWindowHandle;
        _screen.Driver.SwitchTo().NewWindow(WindowType.Tab);
        _screen.Driver.Navigate().GoToUrl(address);
        var second = _screen.Driver.CurrentWindowHandle;
        Note("from the second tab");
        _screen.Driver.SwitchTo().Window(first);
        _screen.ClickText("Journal");
        _screen.See("from the second tab");

        _screen.Open(new Uri(address).AbsolutePath + "/close-out");
        _screen.ClickText("Handed over");
        _screen.Type("#closing-text", "to the late shift");
        _screen.ClickText("Close the job");
        _screen.Driver.SwitchTo().Window(second);
        _screen.See("closed");
    }

    [Fact]
    public void A_service_that_is_killed_and_started_again_loses_nothing_and_gets_what_waited()
    {
        _screen.OpenTheOpenJob();
        Note("before the kill");
        _screen.See("Journal (5)");
        _app.Kill();
        _screen.Type("input[aria-label='Note']", "while it was away");
        _screen.ClickText("Note");
        _screen.See("waiting");
        _screen.See("no connection");
        _app.Start();
        _screen.See("Journal (6)");
        _screen.Driver.Navigate().Refresh();
        _screen.ClickText("Journal (6)");
        _screen.See("before the kill");
        _screen.See("while it was away");
    }

    /// <summary>A photo that was taken without a connection is shown, waits on the device, and is the service's once it is back.</summary>
    [Fact]
    public void A_photo_taken_while_the_service_was_away_gets_there()
    {
        var photo = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():N}.png");
        File.WriteAllBytes(photo, Convert.FromBase64String(Screen.OnePoint));
        try
        {
            _screen.OpenTheOpenJob();
            _screen.ClickText("Journal");
            _app.Kill();
            _screen.Type("input[aria-label='Note']", "burnt clamp");
            _screen.Driver.FindElement(By.CssSelector("input[type='file']")).SendKeys(photo);
            _screen.See("Photo: burnt clamp");
            _screen.See("no connection");
            _app.Start();
            _screen.See("Journal (5)");
            _screen.Driver.Navigate().Refresh();
            _screen.ClickText("Journal (5)");
            _screen.Until(
                () =>
                    _screen.Driver.ExecuteScript(
                        "const i = document.querySelector('.photo img'); return !!i && i.src.includes('/api/photos/') && i.naturalWidth > 0"
                    )
                        is true,
                "the photo from the service"
            );
        }
        finally
        {
            File.Delete(photo);
        }
    }

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }

    private void AcknowledgeLiveWork()
    {
        _screen.ClickText("First: agree to live tests");
        _screen.TickAll("I work live");
        _screen.Until(() => _screen.Driver.FindElement(By.CssSelector(".state")).Text.Trim() == "LIVE", "the band to say LIVE");
        _screen.Find(Meter);
    }

    private void Note(string text)
    {
        _screen.ClickText("Journal");
        _screen.Type("input[aria-label='Note']", text);
        _screen.ClickText("Note");
        _screen.See($"Note: {text}");
    }
}
