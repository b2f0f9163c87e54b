using Fehler.Tests;
using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>People in the browser: the first administrator, the crew's tablet, what each may do.</summary>
public sealed class SignInTests : IDisposable
{
    private const string Word = "four wet planks in a row";
    private readonly RunningApp _app = new(isDemo: false);
    private readonly Screen _screen;

    public SignInTests() => _screen = new Screen(_app.Address);

    [Fact]
    public void From_the_console_s_code_to_a_crew_that_signs_in_by_touch_and_does_what_is_theirs()
    {
        // Somebody wanted to go to the plan; until there is an administrator everything leads to the first.
        _screen.Open("/plan");
        _screen.See("The first administrator");
        _screen.Driver.FindElements(By.CssSelector("header nav")).ShouldBeEmpty();
        _screen.Type("#code", "AAAA-BBBB-CCCC");
        _screen.Type("#name", "Ada Hollmann");
        _screen.Type("#password", Word);
        _screen.ClickText("Begin");
        _screen.See("not the code");
        _screen.Type("#code", _app.Code);
        _screen.Type("#password", Word);
        _screen.ClickText("Begin");
        _screen.Until(() => new Uri(_screen.Driver.Url).AbsolutePath == "/plan", "where one wanted to go");

        _screen.Open("/people");
        _screen.See("Tablets of the crew");
        Add("Kurt Ohm", "short");
        _screen.See("A password has 12 to 128 characters");
        _screen.Type("#p-word", Word);
        _screen.ClickText("Keep");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0, "the dialog gone");
        _screen.See("Kurt Ohm");
        _screen.Type("[aria-label='Name of this device']", "Tablet, hall 2");
        _screen.ClickText("Trust this device");
        _screen.See("No longer");
        _screen.See("device trusted");

        SetPin("7301");
        _screen.ClickText("Sign out here");
        _screen.See("Sign in");
        _screen.ClickText("Name and password instead");
        SignIn("Kurt Ohm", Word);
        SetPin("8412");
        _screen.ClickText("Sign out here");

        // From now on a touch and four digits; a wrong one is said where it was typed.
        _screen.See("Who works here?");
        _screen.See("Tablet, hall 2");
        _screen.Click("button.touch[aria-pressed=false]:nth-of-type(2)");
        _screen.Find("button.touch[aria-pressed=true]").Text.ShouldContain("Kurt Ohm");
        _screen.Type("#pin", "8413");
        _screen.ClickText("Begin");
        _screen.See("The PIN is not right");
        _screen.Type("#pin", "8412");
        _screen.ClickText("Begin");
        _screen.See("Register");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("tbody tr")).Count > 5, "the register");

        // An electrician: jobs, in their own name; people are not theirs to see.
        _screen.OpenCircuit("WP-301");
        _screen.ClickText("It does not work");
        _screen.Driver.FindElements(By.CssSelector("#caller")).ShouldBeEmpty();
        _screen.Type("#complaint", "Hums since noon");
        _screen.ClickText("Open the job");
        _screen.See("TREAT AS LIVE");
        _screen.ClickText("Journal");
        _screen.Until(() => _screen.Find("section[aria-label='Journal'] li").Text.Contains("Kurt Ohm"), "the name in the journal");
        _screen.Open("/people");
        _screen.See("This is for administrators");
    }

    [Fact]
    public void An_apprentice_s_live_test_waits_for_a_colleague_who_says_so_with_a_word_of_their_own()
    {
        BeFirst("Sven Meister");
        _screen.Open("/people");
        _screen.See("Tablets of the crew");
        _screen.ClickText("Add somebody");
        _screen.Type("#p-name", "Lea Lernt");
        _screen.Type("#p-word", Word);
        _screen.Driver.ExecuteScript("document.querySelector('form.fields > label.tick input').click()");
        _screen.ClickText("Keep");
        _screen.See("with a second person");
        _screen.Open("/you");
        _screen.ClickText("Sign out here");
        SignIn("Lea Lernt", Word);
        _screen.OpenTheOpenJob();
        _screen.ClickText("Live tests");
        _screen.TickAll("I work live");
        _screen.See("A second person stands by");
        _screen.Type("#second-word", "not the right one at all");
        _screen.ClickText("Stands by");
        _screen.See("another electrician who may work alone");
        _screen.Type("#second-word", Word);
        _screen.ClickText("Stands by");
        _screen.See("LIVE");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0, "the dialogs gone");
        _screen.Open(new Uri(_screen.Driver.Url).AbsolutePath + "/report");
        _screen.See("Lea Lernt with Sven Meister");
    }

    [Fact]
    public void A_code_from_the_phone_is_set_up_and_asked_for_where_the_password_was_typed()
    {
        BeFirst("Ada Hollmann");
        _screen.Open("/you");
        _screen.See("One-time codes");
        _screen.Type("#codes-word", "not the right one at all");
        _screen.ClickText("Set them up");
        _screen.See("The password is not right");
        _screen.Type("#codes-word", Word);
        _screen.ClickText("Set them up");
        _screen.See("authenticator read this picture");
        var width = (long?)_screen.Driver.ExecuteScript("return document.querySelector('img.qr').naturalWidth");
        width.GetValueOrDefault().ShouldBeGreaterThan(50, "the picture is drawn");
        var key = _screen.Find("code.qr-key").Text.Replace(" ", "");
        _screen.Type("#first-code", OneTimeCode.Of(key, DateTimeOffset.UtcNow));
        _screen.ClickText("Put in force");
        _screen.See("Shown this once");
        var spare = _screen.Driver.FindElements(By.CssSelector(".spare code")).Select(e => e.Text).ToList();
        spare.Count.ShouldBe(8);
        _screen.ClickText("Sign out here");

        _screen.Type("#name", "Ada Hollmann");
        _screen.Type("#password", Word);
        _screen.ClickText("Sign in");
        _screen.See("One-time code");
        _screen.Until(() => _screen.Driver.SwitchTo().ActiveElement().GetAttribute("id") == "one-time", "the code's field ready");
        _screen.Type("#one-time", "123");
        _screen.ClickText("Sign in");
        _screen.See("do not go together");
        _screen.Type("#password", Word);
        _screen.ClickText("Sign in");
        _screen.See("One-time code");
        _screen.Type("#one-time", spare[0]);
        _screen.ClickText("Sign in");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("tbody tr")).Count > 5, "the register");
        _screen.Open("/people");
        _screen.See("no PIN, one-time codes");
    }

    private void BeFirst(string name)
    {
        _screen.Open("/");
        _screen.See("The first administrator");
        _screen.Type("#code", _app.Code);
        _screen.Type("#name", name);
        _screen.Type("#password", Word);
        _screen.ClickText("Begin");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("tbody tr")).Count > 5, "the register");
    }

    private void Add(string name, string password)
    {
        _screen.ClickText("Add somebody");
        _screen.Type("#p-name", name);
        _screen.Type("#p-word", password);
        _screen.ClickText("Keep");
    }

    private void SetPin(string pin)
    {
        _screen.Open("/you");
        _screen.See("Password and PIN");
        _screen.Type("#now", Word);
        _screen.Type("#pin", pin);
        _screen.ClickText("Set the PIN");
        _screen.See("The PIN is set");
    }

    private void SignIn(string name, string password)
    {
        _screen.Type("#name", name);
        _screen.Type("#password", password);
        _screen.ClickText("Sign in");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("tbody tr")).Count > 5, "the register");
    }

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }
}
