using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>A panel that turns out to be built otherwise than it is drawn, found with the job open and put right from there.</summary>
public sealed class PanelDiffersTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    public PanelDiffersTests() => _screen = new Screen(_app.Address);

    [Fact]
    public void Another_number_on_the_ferrules_is_put_into_the_drawing_and_the_search_goes_on()
    {
        _screen.OpenTheOpenJob();
        Wire("5");
        _screen.ClickText("The panel differs here");

        // A number that another wire has is refused beside the button, and nothing has changed.
        _screen.Type("#ferrule", "4");
        _screen.ClickText("Renumber");
        _screen.See("Wire 4 is there already");
        _screen.Find("#ferrule").Clear();
        _screen.Type("#ferrule", "55");
        _screen.ClickText("Renumber");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("[data-wire='55']")).Count > 0, "the wire by its number");
        _screen.Driver.FindElements(By.CssSelector("[data-wire='5']")).ShouldBeEmpty();
        _screen.See("Journal (5)");
        _screen.ClickText("Journal (5)");
        _screen.See("The panel differs: wire 5 is numbered 55");
        _screen.See("units are still possible");
        _screen.Driver.FindElements(By.CssSelector("button[aria-label^='Strike out: The panel differs']")).ShouldBeEmpty();
    }

    [Fact]
    public void Conductors_under_a_screw_are_counted_from_the_wire()
    {
        _screen.OpenTheOpenJob();
        Wire("5");
        _screen.Click("[aria-label='1 found under KM1:A1'], [aria-label='1 found under KM1:14']");
        _screen.See("Journal (5)");
        _screen.Driver.Navigate().Refresh();
        _screen.ClickText("Journal (5)");
        _screen.See("Conductors under KM1:");
    }

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }

    private void Wire(string number)
    {
        _screen.Driver.ExecuteScript(
            "document.querySelector(`[data-wire='${arguments[0]}']`).dispatchEvent(new MouseEvent('click', {bubbles: true}))",
            number
        );
        _screen.See($"Wire {number}");
    }
}
