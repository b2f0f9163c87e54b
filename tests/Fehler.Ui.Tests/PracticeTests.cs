using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>Practice in the browser: the job's own screen on a simulated panel.</summary>
public sealed class PracticeTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    public PracticeTests() => _screen = new Screen(_app.Address);

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }

    private void Begin(bool withAdvice)
    {
        _screen.Open("/practice");
        _screen.Pick("Circuit", "IN-101");
        if (withAdvice)
        {
            _screen.ClickText("Shown");
        }

        _screen.Type("[placeholder='the same fault for everybody']", "monday");
        _screen.ClickText("Begin");
        _screen.See("Practice, simulated panel");
    }

    [Fact]
    public void With_advice_the_card_is_followed_until_the_fault_is_found_and_the_debrief_names_it()
    {
        Begin(withAdvice: true);
        for (var i = 0; i < 20 && !_screen.Shows("Proved by its own reading"); i++)
        {
            Follow();
        }

        _screen.See("Proved by its own reading");
        _screen.ClickText("Give up and look");
        _screen.See("What was hidden", 60);
        _screen.See("Step by step");
        _screen.See("units left");
    }

    [Fact]
    public void Without_advice_a_lead_is_put_on_a_tapped_terminal_and_ohms_on_a_live_circuit_end_it()
    {
        Begin(withAdvice: false);
        _screen.See("the suspects are yours to think of");
        _screen.Driver.FindElements(By.CssSelector(".suspects li")).Count.ShouldBe(0);
        _screen.ClickText("Tried and seen");
        _screen.Touch("S2");
        _screen.ClickText("Do it");
        _screen.See("S2 pressed →");
        _screen.Driver.ExecuteScript(
            "document.querySelector(\"[data-terminal='KM1:A1']\").dispatchEvent(new MouseEvent('click', {bubbles: true}))"
        );
        _screen.ClickText("Live tests");
        _screen.TickAll("I work live");
        _screen.ClickText("Put the meter on");
        _screen.See("1 reading,");
        _screen.ClickText("Ω");
        _screen.ClickText("Put the meter on");
        _screen.See("Ohms on a circuit that is not proved dead");
        _screen.ClickText("Debrief");
        _screen.See("It was not named", 60);
    }

    /// <summary>Does what the card asks; what it shows comes from the panel.</summary>
    private void Follow()
    {
        var journal = _screen.Driver.FindElements(By.CssSelector("[id^=tab-journal]"))[0].Text;
        bool Moved() => _screen.Driver.FindElements(By.CssSelector("[id^=tab-journal]"))[0].Text != journal;
        _screen.Until(
            () => _screen.Driver.FindElements(By.CssSelector("#panel-next[aria-busy=false]")).Count > 0,
            "the card to be worked out",
            60
        );
        var first = _screen.Driver.FindElements(By.CssSelector("#panel-next .first")).FirstOrDefault(b => b.Displayed)?.Text ?? "";
        if (first.StartsWith("First: agree", StringComparison.Ordinal))
        {
            _screen.Click("#panel-next .first");
            _screen.TickAll("I work live");
        }
        else if (first.StartsWith("First: isolate", StringComparison.Ordinal))
        {
            _screen.Click("#panel-next .first");
            _screen.TickAll("It is isolated and locked");
        }
        else if (first.StartsWith("First: prove", StringComparison.Ordinal))
        {
            _screen.Click("#panel-next .first");
            _screen.TickAll("It is dead");
        }
        else if (first.StartsWith("First: switch", StringComparison.Ordinal))
        {
            _screen.Click("#panel-next .first");
            _screen.TickAll("It is switched on");
        }
        else if (first.StartsWith("Done: say", StringComparison.Ordinal))
        {
            _screen.Click("#panel-next .first");
            _screen.Until(() => _screen.Shows("Do it") || _screen.Shows("See how it stands"), "what was asked for to be tried");
            _screen.ClickText(_screen.Shows("Do it") ? "Do it" : "See how it stands");
        }
        else if (first.Length > 0)
        {
            _screen.Click("#panel-next .first");
        }
        else
        {
            _screen.ClickText("Put the meter on");
        }

        _screen.Until(Moved, $"an entry after “{first}”");
    }
}
