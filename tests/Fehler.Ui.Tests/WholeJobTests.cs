using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using OpenQA.Selenium;

namespace Fehler.Ui.Tests;

/// <summary>An electrician's whole job in the browser; the panel is simulated, everything else is real.</summary>
public sealed class WholeJobTests : IDisposable
{
    private readonly RunningApp _app = new();
    private readonly Screen _screen;

    public WholeJobTests() => _screen = new Screen(_app.Address);

    /// <summary>By the mouse, by a keyboard alone, and with the service gone from before the job is opened until it is closed.</summary>
    [Theory]
    [InlineData(false, false)]
    [InlineData(true, false)]
    [InlineData(false, true)]
    public void From_the_complaint_to_the_logbook_a_dead_stop_button_is_found_repaired_and_proved(bool byKeys, bool withoutService)
    {
        _screen.ByKeys = byKeys;
        var circuit = CircuitFile.Read(File.ReadAllText(Path.Combine(RunningApp.Root, "demo", "circuits", "IN-101.circuit.json")));
        var panel = new SimulatedPanel(circuit.Compile(), FaultCatalogue.Of(circuit).First(f => f.Id == "S1/21-22-open").Alterations);

        _screen.Open("/");
        _screen.Type(".search", "infeed chain");
        _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("tbody tr")).Count == 1, "one circuit in the register");
        _screen.ClickText("IN-101");
        if (withoutService)
        {
            TakeAlong();
            _app.Kill();
            _screen.Driver.Navigate().Refresh();
        }

        _screen.ClickText("It does not work");
        _screen.Type("#complaint", "Start does nothing since the morning");
        _screen.ClickText("Open the job");
        _screen.See("NOT KNOWN – TREAT AS LIVE");

        panel.Operate([new Step("S2", "pressed")]);
        _screen.ClickText("Tried and seen");
        _screen.Touch("S2");
        // A first diagnosis on a device takes several times what the service takes.
        _screen.See("Start S2 pressed");
        _screen.Until(() => _screen.Find("[data-seen='M1']").Text == "M1 runs", "the motor said to run");
        _screen.ClickText("Nothing happened");
        _screen.See("units are still possible");
        panel.Operate([new Step("S2", "released")]);

        for (var i = 0; i < 15 && !_screen.Shows("Proved by its own reading"); i++)
        {
            FollowCard(panel);
        }

        _screen.See("Contact 21-22 of button S1 is open. Proved by its own reading");

        _screen.ClickText("Repair and close out");
        _screen.Until(
            () => _screen.Find("#text").GetAttribute("value")!.Contains("Contact 21-22", StringComparison.Ordinal),
            "the finding proposed"
        );
        _screen.ClickText("Record the finding");
        _screen.See("Found: Contact 21-22 of button S1 is open");
        _screen.Type("#cause", "sawdust");
        if (!panel.IsIsolated)
        {
            // It was proved live; hands go in only now.
            _screen.See("Hands go into a panel that is isolated and proved dead");
            _screen.ClickText("Isolate and lock off");
            panel.Isolate();
            _screen.TickAll("It is isolated and locked");
            _screen.ClickText("Prove dead at the point of work");
            _screen.TickAll("It is dead");
        }

        _screen.See("ISOLATED AND PROVED DEAD");
        _screen.ClickText("Record the repair");
        _screen.See("Repaired S1");
        for (var i = 0; i < 5; i++)
        {
            var left = Count("Confirm");
            _screen.Click("button[aria-label^='Confirm:']");
            _screen.Until(() => Count("Confirm") < left, "the item confirmed");
        }

        // Closing is refused while the function test is missing.
        _screen.ClickText("Close the job");
        _screen.See("The function test is not complete");
        if (panel.IsIsolated)
        {
            _screen.ClickText("Switch on");
            _screen.TickAll("It is switched on");
        }

        var clamped = false;
        while (!_screen.Shows("Function test complete"))
        {
            if (!clamped && _screen.Shows("Currents of the three lines"))
            {
                // It runs now: agreed to live tests, clamped, and the currents stand with the proof.
                _screen.ClickText("Currents of the three lines");
                // It was isolated for the repair: working live is agreed to anew.
                _screen.TickAll("I work live");
                _screen.See("Record all three");
                for (var line = 1; line <= 3; line++)
                {
                    _screen.Type($"[aria-label='Line {line}']", "8.3");
                }

                _screen.See("of the 11.2 A that the plate allows");
                _screen.ClickText("Record all three");
                _screen.Until(() => _screen.Driver.FindElements(By.CssSelector("[role=dialog]")).Count == 0, "the dialog gone");
                clamped = true;
            }

            var done = Count("as expected");
            _screen.ClickText("As expected");
            _screen.Until(() => Count("as expected") > done || _screen.Shows("Function test complete"), "the step recorded");
        }

        clamped.ShouldBeTrue();
        _screen.ClickText("Close the job");
        _screen.See("closed");
        if (withoutService)
        {
            _screen.See("no connection: worked out here");
            _app.Start();
            _screen.Until(() => !_screen.Shows("no connection") && !_screen.Shows("not yet sent"), "everything sent");
        }

        _screen.Open("/logbook");
        _screen.See("Start does nothing since the morning");
        _screen.See("repaired and proved");
        _screen.Open("/");
        _screen.ClickText("IN-101");
        _screen.ClickText("History");
        _screen.See("Start does nothing since the morning");
    }

    public void Dispose()
    {
        _screen.Dispose();
        _app.Dispose();
    }

    /// <summary>Takes the circuit along, and waits until the browser keeps the pages too.</summary>
    private void TakeAlong()
    {
        _screen.See("It does not work");
        _screen.ClickText("Take along");
        _screen.See("Taken along");
        _screen.Until(() => _screen.Driver.ExecuteScript("return navigator.serviceWorker.controller !== null") is true, "the pages kept");
    }

    /// <summary>Does what the card says and types what the simulated meter shows.</summary>
    private void FollowCard(SimulatedPanel panel)
    {
        var before = Entries();
        var card = _screen.Until(
            () => _screen.Driver.FindElements(By.CssSelector("section[aria-label='Next test'][aria-busy='false']")).FirstOrDefault(),
            "the next test"
        )!;
        var first = card.FindElements(By.TagName("button")).FirstOrDefault(b => b.Text.StartsWith("First:", StringComparison.Ordinal));
        if (first is not null)
        {
            var what = first.Text;
            _screen.ClickText("First:");
            if (what.Contains("isolate", StringComparison.Ordinal))
            {
                panel.Isolate();
                _screen.TickAll("It is isolated and locked");
            }
            else if (what.Contains("prove", StringComparison.Ordinal))
            {
                _screen.TickAll("It is dead");
                _screen.See("ISOLATED AND PROVED DEAD");
            }
            else if (what.Contains("switch", StringComparison.Ordinal))
            {
                panel.Energise();
                _screen.TickAll("It is switched on");
            }
            else
            {
                _screen.TickAll("I work live");
            }
        }
        else if (card.GetAttribute("data-look") is { Length: > 0 } look)
        {
            var parts = look.Split('/');
            var answer = panel.Look(parts[0], parts[1]);
            _screen.ClickText(answer);
        }
        else
        {
            var leads = card.FindElements(By.CssSelector(".lead strong")).Select(e => TerminalId.Parse(e.Text)).ToList();
            var held = JsonSerializer.Deserialize<ImmutableArray<Step>>(card.GetAttribute("data-held")!, JournalJson.Options);
            var quantity = Enum.Parse<Quantity>(card.GetAttribute("data-quantity")!, ignoreCase: true);
            var value = panel.Measure(quantity, leads[0], leads[1], held);
            _screen.Type(
                "input[aria-label='What the meter shows']",
                value.Kind == ReadingKind.OverLimit ? "OL" : FormattableString.Invariant($"{value.Number:0.##}")
            );
            _screen.Find("input[aria-label='What the meter shows']").SendKeys(Keys.Enter);
        }

        _screen.Until(() => Entries() > before, "the entry recorded");
        _screen.Until(
            () => _screen.Driver.FindElements(By.CssSelector("section[aria-label='Next test'][aria-busy='false']")).Count > 0,
            "the next test worked out"
        );
    }

    private int Entries()
    {
        var tab = _screen
            .Driver.FindElements(By.CssSelector("[role=tab]"))
            .First(t => t.Text.StartsWith("Journal", StringComparison.Ordinal))
            .Text;
        return int.Parse(
            tab[(tab.IndexOf('(', StringComparison.Ordinal) + 1)..tab.IndexOf(')', StringComparison.Ordinal)],
            System.Globalization.CultureInfo.InvariantCulture
        );
    }

    private int Count(string text) => _screen.Driver.FindElement(By.TagName("main")).Text.Split(text).Length - 1;
}
