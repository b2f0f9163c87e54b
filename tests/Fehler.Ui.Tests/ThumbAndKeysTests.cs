using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>The job screen with one thumb on a phone, and with a keyboard alone.</summary>
public sealed class ThumbAndKeysTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    private const string Meter = "input[aria-label='What the meter shows']";

    public ThumbAndKeysTests() => _screen = new Screen(_app.Address);

    [Fact]
    public void A_reading_is_taken_and_recorded_with_one_thumb()
    {
        _screen.Resize(390, 844);
        _screen.OpenTheOpenJob();
        _screen.ClickText("First:");
        _screen.TickAll("I work live");
        _screen.Find(Meter);
        _screen.Click("button[aria-label='Number pad']");
        _screen.Click(Meter);
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector(".pad button")).Count > 12, "the keys");

        // WCAG 2.2, 2.5.8 asks for 24 px; gloves ask for more (common practice: 9 mm and up).
        Smallest(".pad button").ShouldBeGreaterThanOrEqualTo(44);
        foreach (var key in "23x1")
        {
            _screen.Click(key == 'x' ? ".pad button[aria-label='Delete the last']" : $".pad button[aria-label='{key}']");
        }

        _screen.Find(Meter).GetAttribute("value").ShouldBe("21");
        var record = (bool)
            _screen.Driver.ExecuteScript(
                """
                const button = [...document.querySelectorAll('.raised button')].find(b => b.innerText === 'Record').getBoundingClientRect()
                return button.right <= innerWidth && button.bottom <= innerHeight && button.height >= 44
                """
            )!;
        record.ShouldBeTrue("the button is under the thumb");
        _screen.ClickText("Record");
        if (_screen.Driver.FindElements(By.CssSelector(".question")).Count > 0)
        {
            _screen.ClickText("It shows that");
        }

        _screen.See("Journal (6)");
        Scrolled().ShouldBe(0, "the page stays where it is");
    }

    /// <summary>Both leads are seen, and no button of the drawing lies on one of them: a thumb would press it.</summary>
    [Fact]
    public void On_a_phone_both_leads_stand_clear_of_the_drawings_buttons()
    {
        _screen.Resize(390, 844);
        _screen.OpenTheOpenJob();
        _screen.ClickText("First:");
        _screen.TickAll("I work live");
        _screen.Find(Meter);
        _screen.Until(() => Hidden().Length == 0, "both leads clear of the drawing's buttons");
    }

    /// <summary>Leads that nowhere lie wholly within the frame and clear of its buttons; every sheet with the point draws the lead.</summary>
    private string Hidden() =>
        (string)
            _screen.Driver.ExecuteScript(
                """
                const boxes = (selector) => [...document.querySelectorAll(selector)].map(e => e.getBoundingClientRect())
                const [frame] = boxes('.viewport .sheets')
                const tools = boxes('.viewport [role=toolbar] :is(button, .p-select)')
                const meets = (a, b) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom
                const within = (a) => a.left >= frame.left && a.right <= frame.right && a.top >= frame.top && a.bottom <= frame.bottom
                if (tools.length === 0) return 'nothing drawn yet'
                return [1, 2].filter(lead => !boxes(`svg g.lead-${lead}`).some(p => within(p) && !tools.some(t => meets(p, t)))).join(' ')
                """
            )!;

    /// <summary>Arrows walk lead 1 along the path, a number and Enter record it; no key goes to a button on the way.</summary>
    [Fact]
    public void The_lead_walks_along_the_path_by_the_arrows_and_is_recorded_by_Enter()
    {
        _screen.OpenTheOpenJob();
        _screen.ClickText("First:");
        _screen.TickAll("I work live");
        _screen.Find(Meter);
        _screen.Driver.ExecuteScript(
            "document.querySelector(\"[data-terminal='S1:21']\").dispatchEvent(new MouseEvent('click', {bubbles: true})); "
                + "document.activeElement.blur()"
        );
        // Keys belong to a dialog until it has gone.
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0, "the dialog to go");
        _screen.Until(() => Lead() == "S1:21", "the lead at S1:21");
        var start = Lead();
        _screen.Keys(Keys.ArrowDown);
        _screen.Until(() => Lead() != start, "the lead one terminal down");
        var down = Lead();
        // In the field, too, as long as it is empty; a browser without a mouse does not put the cursor there by itself.
        _screen.Find(Meter).Click();
        _screen.Keys(Keys.ArrowUp);
        _screen.Until(() => Lead() == start, "the lead back");
        _screen.Keys(Keys.ArrowDown);
        _screen.Until(() => Lead() == down, "the lead down again");
        _screen.Find(Meter).Click();

        // While something is typed the arrows are the text's.
        _screen.Keys("117");
        _screen.Keys(Keys.ArrowLeft);
        Lead().ShouldBe(down);
        _screen.Keys(Keys.Enter);
        _screen.Until(
            () => _screen.Shows("Journal (6)") || _screen.Driver.FindElements(By.CssSelector(".question")).Count > 0,
            "recorded, or asked about"
        );
        if (_screen.Driver.FindElements(By.CssSelector(".question")).Count > 0)
        {
            _screen.ClickText("It shows that");
        }

        _screen.See("Journal (6)");
        _screen.ClickText("Journal (6)");
        _screen.See($"{down} – ");
    }

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }

    private string Lead() => _screen.Driver.FindElements(By.CssSelector(".lead strong")).FirstOrDefault()?.Text ?? "";

    private long Scrolled() =>
        (long)_screen.Driver.ExecuteScript("return Math.round(window.scrollY + document.documentElement.scrollHeight - innerHeight)")!;

    private double Smallest(string css) =>
        Convert.ToDouble(
            _screen.Driver.ExecuteScript(
                "return Math.min(...[...document.querySelectorAll(arguments[0])].map(e => Math.min(e.getBoundingClientRect().width, "
                    + "e.getBoundingClientRect().height)))",
                css
            ),
            System.Globalization.CultureInfo.InvariantCulture
        );
}
