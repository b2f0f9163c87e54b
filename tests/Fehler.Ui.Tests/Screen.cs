using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;

namespace Fehler.Ui.Tests;

/// <summary>A headless Chromium on the running application, with the words a person would use.</summary>
public sealed class Screen : IDisposable
{
    private readonly Browser _browser;

    public Screen(string address, int width = 1280, int height = 800)
    {
        Address = address;
        _browser = Browser.Take();
        Resize(width, height);
    }

    public string Address { get; }

    public ChromeDriver Driver => _browser.Driver;

    public void Resize(int width, int height) =>
        Driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new Dictionary<string, object?>
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = false,
            }
        );

    /// <summary>A picture of one point, as ISO/IEC 15948 has it.</summary>
    public const string OnePoint = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==";

    public void Open(string path) => Driver.Navigate().GoToUrl(Address + path);

    /// <summary>How long something may take before it is said not to come, s: machines that test are slow and share their processors.</summary>
    private const double Patience = 180;

    /// <summary>Waits until something is so; fails with what was awaited.</summary>
    public T Until<T>(Func<T?> condition, string what, double seconds = Patience)
    {
        var end = DateTime.UtcNow.AddSeconds(seconds);
        while (true)
        {
            try
            {
                if (condition() is { } result && !(result is bool b && !b))
                {
                    return result;
                }
            }
            catch (Exception e) when (e is NoSuchElementException or StaleElementReferenceException or ElementNotInteractableException)
            {
                // The page is being drawn; look again.
            }

            if (DateTime.UtcNow > end)
            {
                var dialogs = string.Join(" | ", Driver.FindElements(By.CssSelector("[role=dialog]")).Select(d => d.Text));
                var body = Text;
                throw new TimeoutException(
                    $"Waited in vain for: {what}. Dialog: {dialogs}. The page shows: {body[..Math.Min(1500, body.Length)]}"
                );
            }

            Thread.Sleep(60);
        }
    }

    public IWebElement Find(string css) => Until(() => Driver.FindElements(By.CssSelector(css)).FirstOrDefault(e => e.Displayed), css)!;

    public void Click(string css) => Press(() => Find(css), css);

    /// <summary>Clicks the button, link or tab with this text, or whose text begins so.</summary>
    public void ClickText(string text) => Press(() => WithText(text)!, text);

    public bool Shows(string text) => Text.Contains(text, StringComparison.OrdinalIgnoreCase);

    /// <summary>What the page says: asked of it in one question, for a drawing is some hundred elements.</summary>
    private string Text => (string)Driver.ExecuteScript("return document.body.innerText")!;

    public void See(string text, double seconds = Patience) => Until(() => Shows(text), $"“{text}” on the page", seconds);

    /// <summary>Everything is done by keys: what is no tab stop cannot be reached.</summary>
    public bool ByKeys { get; set; }

    public void Type(string css, string text)
    {
        // A dialog that has just come up moves the focus once it stands, and shows its fields one after the other: nobody types while it comes.
        Until(() => Driver.FindElements(By.CssSelector(".p-dialog-enter-active")).Count == 0, "the dialog to stand");
        var element = Find(css);
        if (ByKeys)
        {
            Focus(element);
        }

        element.Clear();
        element.SendKeys(text);
    }

    /// <summary>Chooses an option of a drop-down by the beginning of its text.</summary>
    public void Choose(string selectId, string option) => PickIn($"#{selectId}", option);

    /// <summary>Chooses from the list of that name.</summary>
    public void Pick(string label, string option) => PickIn($"[role=combobox][aria-label='{label}']", option);

    private void PickIn(string css, string option)
    {
        Press(() => Find(css).FindElement(By.XPath("./ancestor-or-self::*[contains(@class, 'p-select')][last()]")), css);
        Press(
            () =>
                Driver
                    .FindElements(By.CssSelector("[role=option]"))
                    .FirstOrDefault(o => o.Text.StartsWith(option, StringComparison.Ordinal)),
            option
        );
    }

    /// <summary>Touches a part in the drawing: a button is pressed and held, or let go.</summary>
    public void Touch(string tag)
    {
        Find(".try");
        Until(() => Driver.FindElements(By.CssSelector($"[data-part^='{tag}:']")).Count > 0, $"{tag} in the drawing");
        if (ByKeys)
        {
            Press(() => Driver.FindElement(By.CssSelector($"[data-part^='{tag}:'][tabindex='0']")), tag);
            return;
        }

        Driver.ExecuteScript(
            $"document.querySelector(\"[data-part^='{tag}:']\").dispatchEvent(new MouseEvent('click', {{bubbles: true}}))"
        );
    }

    /// <summary>Says what a device did that was tried: on its mark beside what a good circuit does, or by touching it in the drawing.</summary>
    public void SawOf(string tag, string what)
    {
        if (Driver.FindElements(By.CssSelector($"[data-seen='{tag}']")).Count == 0)
        {
            Touch(tag);
        }
        else
        {
            Click($"[data-seen='{tag}']");
        }

        Click($"[data-appearance='{what}']");
        Until(
            () => Driver.FindElement(By.CssSelector($"[data-seen='{tag}']")).Text.StartsWith($"{tag} {what}", StringComparison.Ordinal),
            $"{tag} {what}"
        );
    }

    public void Keys(string keys) => new Actions(Driver).SendKeys(keys).Perform();

    /// <summary>Ticks every check of the open dialog and presses its button.</summary>
    public void TickAll(string confirm)
    {
        // The dialog before may still be going when this one comes: what is open then is done again.
        Until(
            () =>
            {
                if (Driver.FindElements(By.CssSelector(".p-dialog-enter-active, .p-dialog-leave-active")).Count > 0)
                {
                    return false;
                }

                foreach (var tick in Driver.FindElements(By.CssSelector("[role=dialog] input[type=checkbox]")).Where(t => !t.Selected))
                {
                    if (ByKeys)
                    {
                        Focus(tick);
                        Keys(OpenQA.Selenium.Keys.Space);
                        continue;
                    }

                    Driver.ExecuteScript("arguments[0].click()", tick);
                }

                // What is measured before a circuit counts as dead.
                foreach (var reading in Driver.FindElements(By.CssSelector("[role=dialog] [data-dead]")))
                {
                    if (reading.GetAttribute("value") is null or "")
                    {
                        reading.SendKeys(reading.GetDomAttribute("data-dead") == "volts" ? "0" : "0.3");
                    }
                }

                return WithText(confirm) is { Enabled: true };
            },
            $"everything that “{confirm}” asks for"
        );
        ClickText(confirm);
    }

    /// <summary>From the register to a circuit: the list comes anew while one types, so it is pressed once it stands still.</summary>
    public void OpenCircuit(string tag)
    {
        Open("/");
        Type(".search", tag);
        Until(
            () =>
                Driver.FindElements(By.CssSelector("tbody tr")) is { Count: 1 } rows
                && rows[0].Text.StartsWith(tag, StringComparison.Ordinal),
            $"{tag} alone in the register"
        );
        ClickText(tag);
        See("Terminal plan");
        Until(() => Driver.FindElements(By.CssSelector("[data-terminal]")).Count > 0, "the drawing");
    }

    /// <summary>From the register to the one open job of the demo plant, its first test worked out.</summary>
    public void OpenTheOpenJob()
    {
        Open("/");
        ClickText("open job");
        See("TREAT AS LIVE");
        Until(
            () => Driver.FindElements(By.CssSelector("section[aria-label='Next test'][aria-busy='false'] .lead")).Count > 0,
            "a proposed test"
        );
    }

    public void Dispose() => _browser.GiveBack();

    /// <summary>The shortest of those that can be pressed and begin with a text; asked of the page in one question, too.</summary>
    private IWebElement? WithText(string text) =>
        (IWebElement?)
            Driver.ExecuteScript(
                """
                const wanted = arguments[0].toLowerCase()
                return [...document.querySelectorAll('button, a, [role=tab], summary, label')]
                  .filter(e => e.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true }))
                  .map(element => ({ element, text: element.innerText.trim() }))
                  .filter(x => x.text.toLowerCase().startsWith(wanted))
                  .sort((x, y) => x.text.length - y.text.length)[0]?.element ?? null
                """,
                text
            );

    /// <summary>
    /// Goes to an element as the tab key would: it has to be a tab stop; of tabs that share one stop, by the arrows. The keys that follow go to it.
    /// </summary>
    private void Focus(IWebElement element)
    {
        const string focused = "return document.activeElement === arguments[0] || document.activeElement.contains(arguments[0])";
        if (element.GetDomAttribute("role") == "tab" && element.GetDomAttribute("tabindex") == "-1")
        {
            Driver.ExecuteScript("arguments[0].closest('[role=tablist]').querySelector('[role=tab][tabindex=\"0\"]').focus()", element);
            for (var i = 0; i < 12 && !(bool)Driver.ExecuteScript(focused, element)!; i++)
            {
                Keys(OpenQA.Selenium.Keys.ArrowRight);
            }
        }
        else
        {
            // A label is pressed by the stop in it or for it.
            Driver.ExecuteScript(
                "const e = arguments[0]; const stop = e.tabIndex >= 0 ? e : e.control ?? e.querySelector('input, button, a[href]'); "
                    + "if (stop?.tabIndex >= 0) stop.focus()",
                element
            );
        }

        (
            (bool)
                Driver.ExecuteScript(
                    focused + " || arguments[0].control === document.activeElement || arguments[0].contains(document.activeElement)",
                    element
                )!
        ).ShouldBeTrue($"a key reaches {element.TagName} “{element.Text}”");
    }

    private void Press(Func<IWebElement?> find, string what) =>
        Until(
            () =>
            {
                var element = find();
                if (element is null || !element.Displayed || !element.Enabled)
                {
                    return false;
                }

                Driver.ExecuteScript("arguments[0].scrollIntoView({block: 'center'})", element);
                if (ByKeys)
                {
                    Focus(element);
                    Keys(OpenQA.Selenium.Keys.Enter);
                    return true;
                }

                try
                {
                    element.Click();
                }
                catch (ElementClickInterceptedException)
                {
                    return false;
                }

                return true;
            },
            $"“{what}” to press"
        );
}
