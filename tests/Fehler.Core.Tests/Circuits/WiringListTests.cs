using Fehler.Core.Acceptance;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Circuits;

/// <summary>
/// A circuit from a from-to table is the circuit whose wires it lists: the same volts and ohms, whatever its paths are found to be.
/// </summary>
public class WiringListTests
{
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Every_sample_is_found_again_from_its_wires(string name)
    {
        var circuit = FamilySamples.Of(name);
        var found = WiringList.Read(WiringList.Write(circuit), "Any");
        (found.Tag, found.Title, found.Area).ShouldBe((circuit.Tag, circuit.Title, circuit.Area));
        found.Devices.ShouldBe(circuit.Devices);
        found.Conductors.Select(c => (c.From, c.To, c.Wire)).ShouldBe(circuit.Conductors.Select(c => (c.From, c.To, c.Wire)));
        CircuitAcceptance.Try(found.Compile());
        var steps = circuit.Compiled().RunUp.Starts.Take(1).SelectMany(s => s.Run).ToList();
        var (drawn, listed) = (Run(circuit), Run(found));
        // What nothing holds floats by the capacitance of cables, which are the same cores in another order.
        foreach (var terminal in circuit.Conductors.Select(c => c.From).Distinct().Where(t => drawn.Solution.IsFirm(t, circuit.Earth)))
        {
            listed.Solution.Volts(terminal).Magnitude.ShouldBe(drawn.Solution.Volts(terminal).Magnitude, 2, $"{terminal}");
        }

        listed.Appearances.ShouldBe(drawn.Appearances);
        var dead = circuit.Compiled().Isolation.Off;
        var (a, b) = (Meter(circuit), Meter(found));
        foreach (var (from, to) in circuit.Conductors.Zip(circuit.Conductors.Skip(3), (x, y) => (x.From, y.To)))
        {
            var (drawnOhms, listedOhms) = (a(from, to), b(from, to));
            listedOhms.IsOpen.ShouldBe(drawnOhms.IsOpen, $"{from} {to}");
            if (!drawnOhms.IsOpen)
            {
                listedOhms.Value.ShouldBe(drawnOhms.Value, 1e-6 * drawnOhms.Value + 1e-6, $"{from} {to}");
            }
        }

        Outcome Run(Circuit c) =>
            new Simulator(Network.Of(c)) is var s ? s.Do(s.Start().State, steps) : throw new InvalidOperationException();

        Func<TerminalId, TerminalId, Ohms> Meter(Circuit c) =>
            Network.Of(c) is var n && new Simulator(n) is var s
                ? n.OhmMeter(s.Do(s.Start().State, dead).State)
                : throw new InvalidOperationException();
    }

    /// <summary>A holding circuit as the textbooks draw it (common practice) is found as one.</summary>
    [Fact]
    public void Start_and_retaining_contact_are_found_side_by_side_behind_the_stop()
    {
        var found = WiringList.Read(Panel, "P-1");
        var control = found.Paths.Single(p => p.Expression.Parts().Any(x => x.Device == "KM1" && x.In[0] == "A1"));
        control.From.ShouldBe([TerminalId.Parse("F1:2")]);
        control.To.ShouldBe([TerminalId.Parse("INC:N")]);
        var series = control.Expression.ShouldBeOfType<InSeries>();
        series.Children.Select(c => c.ToString()).ShouldContain("S1:1-2");
        series
            .Children.OfType<InParallel>()
            .Single()
            .Parts()
            .Select(p => p.ToString())
            .ShouldBe(["S2:3-4", "KM1:13-14"], ignoreOrder: true);
        found
            .Paths.Where(p => p.Type == PathType.Power)
            .SelectMany(p => p.Expression.Parts())
            .Select(p => p.ToString())
            .ShouldContain("M1:T1,T2,T3");
        found.Paths.Count(p => p.Type == PathType.Power).ShouldBe(1);
        found.Compile().DesignReview.Findings.ShouldAllBe(f => f.Kind != FindingKind.CannotWork);
    }

    /// <summary>The protective conductor is never lifted, and no suspect to be shorted or exchanged, whatever it is numbered.</summary>
    [Theory]
    [InlineData("INC:PE;M1:PE")]
    [InlineData("INC:PE;M1:PE;99")]
    public void The_protective_conductor_is_one_under_any_number(string line)
    {
        var circuit = WiringList.Read(Panel.Replace("INC:PE;M1:PE", line, StringComparison.Ordinal), "P-1");
        var earth = circuit.Conductors.Single(circuit.IsProtective);
        (earth.From, earth.To).ShouldBe((TerminalId.Parse("INC:PE"), TerminalId.Parse("M1:PE")));
        earth.Wire.ShouldBe(line.EndsWith("99", StringComparison.Ordinal) ? "99" : "PE");
        circuit.WireAt(TerminalId.Parse("INC:L2")).ShouldBe("L2");
        new Setup(SetupChange.Isolate, [], true) { LiftedAt = "M1" }
            .Lifts(circuit)
            .Select(l => l.Conductor.Wire)
            .ShouldNotContain(earth.Wire);
        FaultCatalogue.Of(circuit).Where(f => f.Unit == earth.Id).Select(f => f.Kind).ShouldBe(["open"]);
    }

    /// <summary>
    /// One side of the control transformer is earthed by a plain wire to a bar with several clamps (common practice): the bond can be
    /// missing, the return can break, and neither is a protective conductor; jumpers of the bar are.
    /// </summary>
    [Fact]
    public void A_plain_earth_bond_and_a_protective_bar_are_what_they_are()
    {
        var circuit = WiringList.Read(
            Panel
                .Replace(
                    "OL;overload",
                    "T1;control-transformer;panel;Control transformer;secondaryVolts=230\nXPE;terminal-strip;panel;Bar;\nOL;overload",
                    StringComparison.Ordinal
                )
                .Replace(
                    "INC:PE;M1:PE",
                    "INC:PE;XPE:1\nXPE:1;XPE:2\nXPE:2;M1:PE\nXPE:1;T1:4\nF1:2;T1:1\nF1:4;T1:2",
                    StringComparison.Ordinal
                )
                .Replace("F1:2;S1:1", "T1:3;S1:1", StringComparison.Ordinal)
                .Replace("KM1:A2;INC:N", "KM1:A2;T1:4", StringComparison.Ordinal),
            "P-2"
        );
        circuit
            .Conductors.Where(circuit.IsProtective)
            .Select(c => $"{c.From}-{c.To}")
            .ShouldBe(["INC:PE-XPE:1", "XPE:1-XPE:2", "XPE:2-M1:PE"], ignoreOrder: true);
        new Operated(circuit).Do("S2 pressed", "S2 released")["M1"].ShouldBe("runs");
        new Operated(circuit).Volts("T1:3", "INC:PE").ShouldBeInRange(225, 245);
        var faults = FaultCatalogue.Of(circuit);
        var bond = circuit.Conductors.Single(c => c.To == TerminalId.Parse("T1:4") && c.From.Device == "XPE");
        faults.ShouldContain(f => f.Unit == bond.Id && f.Kind == "open");
        var back = circuit.Conductors.Single(c => c.From == TerminalId.Parse("KM1:A2"));
        faults.ShouldContain(f => f.Unit == back.Id && f.Kind == "open");
        faults.ShouldNotContain(f => f.Unit == back.Id && f.Kind == "earth");
        new Operated(circuit, new ConductorOpen(back.Id)).Do("S2 pressed")["M1"].ShouldBe("stopped");
    }

    [Theory]
    [InlineData("from,to,wire\nKM1:1,KM1:2,1", "list", "no table of devices")]
    [InlineData("device,kind\nINC,supply\n\nfrom,to\nINC:L1,Q9:1", "line 5", "not in the table of devices")]
    [InlineData("device,kind\nKM1,contaktor", "line 2", "no kind of device")]
    [InlineData("device,kind\nKM1,contactor\n\nfrom,to\nKM1:77,KM1:1", "line 5", "does not exist")]
    [InlineData(
        "device,kind,place,function,parameters\nKM1,contactor,panel,,coilVolts=many\n\nfrom,to\nKM1:1,KM1:3",
        "line 2",
        "not a number"
    )]
    [InlineData("device,kind\nINC,supply", "list", "no table of wires")]
    [InlineData("KM1,contactor", "line 1", "before any table")]
    public void What_is_wrong_is_said_with_its_line(string text, string at, string says)
    {
        var refused = Should.Throw<CircuitException>(() => WiringList.Read(text, "T"));
        refused.Path.ShouldBe(at);
        refused.Message.ShouldContain(says);
    }

    /// <summary>As it is written down at a panel: names as printed, semicolons, no wire numbers, no lengths.</summary>
    private const string Panel = """
        device;kind;place;function;parameters
        INC;supply;panel;Incoming supply;lineVolts=400
        Q1;isolator;panel;Isolator;
        F1;fuse;panel;Fuses;"poles=3; ratedAmps=20"
        KM1;contactor;panel;Contactor;contacts=13-14
        OL;overload-relay;panel;Overload;settingAmps=8.1
        S1;push-button;door station;Stop;contacts=1-2 nc
        S2;push-button;door station;Start;contacts=3-4 no
        M1;motor;motor;Pump;"terminals=U=T1,V=T2,W=T3"

        from;to
        INC:L1;Q1:1
        INC:L2;Q1:3
        INC:L3;Q1:5
        Q1:2;F1:1
        Q1:4;F1:3
        Q1:6;F1:5
        F1:2;KM1:1
        F1:4;KM1:3
        F1:6;KM1:5
        KM1:2;OL:1
        KM1:4;OL:3
        KM1:6;OL:5
        OL:2;M1:T1
        OL:4;M1:T2
        OL:6;M1:T3
        INC:PE;M1:PE
        F1:2;S1:1
        S1:2;S2:3
        S2:3;KM1:13
        S2:4;KM1:14
        KM1:14;OL:95
        OL:96;KM1:A1
        KM1:A2;INC:N
        """;
}
