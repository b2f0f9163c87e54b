using System.Globalization;
using System.Numerics;
using System.Text;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>
/// The network of a state, with its fault if it has one, as a SPICE netlist: for anybody who wants to check a reading with
/// another program. AC analysis at supply frequency, or the ohmmeter as an operating point.
/// </summary>
public static class SpiceNetlist
{
    /// <summary>Volts: every node voltage at supply frequency (.ac). Node names are in the comments.</summary>
    public static string Ac(Network network, CircuitState state)
    {
        var text = Head(network, "volts at supply frequency");
        var count = 0;
        foreach (var branch in network.Branches)
        {
            var y = network.Admittance(branch, state, Domain.Ac);
            if (y != Complex.Zero)
            {
                Impedance(text, ++count, Name(branch.A), Name(branch.B), 1 / y, network.Omega);
            }
        }

        for (var node = 0; node < network.Size; node++)
        {
            text.Append(CultureInfo.InvariantCulture, $"Cg{node} n{node} 0 {network.Farads(node):R}\n");
            text.Append(CultureInfo.InvariantCulture, $"Rg{node} n{node} 0 {1 / Network.PointLeak:R}\n");
        }

        Coupled(network, state, Domain.Ac, text);
        text.Append(
            CultureInfo.InvariantCulture,
            $".ac lin 1 {network.Omega / (2 * Math.PI):R} {network.Omega / (2 * Math.PI):R}\n.print ac all\n.end\n"
        );
        return text.ToString();
    }

    /// <summary>Direct volts: the control supplies as an operating point.</summary>
    public static string Dc(Network network, CircuitState state)
    {
        var text = Head(network, "direct volts");
        Resistances(network, state, Domain.Dc, text);
        Coupled(network, state, Domain.Dc, text);
        text.Append(".op\n.end\n");
        return text.ToString();
    }

    /// <summary>Ohms: one ampere from one terminal to another; the voltage between them is the resistance.</summary>
    public static string Ohms(Network network, CircuitState state, TerminalId from, TerminalId to)
    {
        var text = Head(network, $"ohms from {from} to {to}");
        Resistances(network, state, Domain.Ohms, text);
        Coupled(network, state, Domain.Ohms, text);
        text.Append(CultureInfo.InvariantCulture, $"Imeter {Name(network.Node(to))} {Name(network.Node(from))} 1\n.op\n.end\n");
        return text.ToString();
    }

    /// <summary>Name of a terminal's node in the netlist.</summary>
    public static string NodeName(Network network, TerminalId terminal) => Name(network.Node(terminal));

    private static StringBuilder Head(Network network, string what)
    {
        var text = new StringBuilder();
        Comment($"{network.Circuit.Tag} {network.Circuit.Title}: {what}");
        foreach (var alteration in network.Alterations)
        {
            Comment($"fault: {alteration}");
        }

        foreach (var (terminal, node) in network.Nodes.OrderBy(n => n.Value))
        {
            Comment($"{Name(node)} = {terminal}");
        }

        return text;

        // What a person has typed stays on its line: a second line would be a command to the simulator.
        void Comment(string said) =>
            text.Append("* ")
                .Append(string.Concat(said.Select(c => char.IsControl(c) || c is '\u2028' or '\u2029' ? ' ' : c)))
                .Append('\n');
    }

    /// <summary>The simulator wants every node held; so little holds it that a reading of 40 Mohm does not notice.</summary>
    private const double OhmsLeak = 1e-13;

    private static void Resistances(Network network, CircuitState state, Domain domain, StringBuilder text)
    {
        var count = 0;
        foreach (var branch in network.Branches)
        {
            var y = network.Admittance(branch, state, domain).Real;
            if (y != 0)
            {
                text.Append(CultureInfo.InvariantCulture, $"R{++count} {Name(branch.A)} {Name(branch.B)} {1 / y:R}\n");
            }
        }

        var leak = domain == Domain.Ohms ? OhmsLeak : Network.PointLeak;
        for (var node = 0; node < network.Size; node++)
        {
            text.Append(CultureInfo.InvariantCulture, $"Rg{node} n{node} 0 {1 / leak:R}\n");
        }
    }

    /// <summary>A series resistance and inductance (or capacitance) of this impedance at this frequency.</summary>
    private static void Impedance(StringBuilder text, int count, string a, string b, Complex z, double omega)
    {
        if (Math.Abs(z.Imaginary) < 1e-12 * z.Magnitude)
        {
            text.Append(CultureInfo.InvariantCulture, $"R{count} {a} {b} {z.Real:R}\n");
            return;
        }

        text.Append(CultureInfo.InvariantCulture, $"R{count} {a} x{count} {z.Real:R}\n");
        text.Append(
            z.Imaginary > 0
                ? string.Create(CultureInfo.InvariantCulture, $"L{count} x{count} {b} {z.Imaginary / omega:R}\n")
                : string.Create(CultureInfo.InvariantCulture, $"C{count} x{count} {b} {-1 / (omega * z.Imaginary):R}\n")
        );
    }

    private static void Coupled(Network network, CircuitState state, Domain domain, StringBuilder text)
    {
        var stamp = new SpiceStamp(network, text, domain);
        for (var i = 0; i < network.Circuit.Devices.Length; i++)
        {
            stamp.Device = i;
            network.Circuit.Devices[i].Kind.Stamp(network.Circuit.Devices[i], state.Devices[i], domain, stamp);
        }
    }

    private static string Name(int node) => node < 0 ? "0" : $"n{node}";

    private sealed class SpiceStamp(Network network, StringBuilder text, Domain domain) : CoupledStamp
    {
        /// <summary>
        /// Currents driven by winding voltages. The quadrature part comes from an auxiliary node at which a unit
        /// current per volt meets one ohm of reactance, so that its voltage is j times the winding's.
        /// </summary>
        public override void Windings((string From, string To)[] windings, Complex[] admittance)
        {
            var tag = $"d{Device}w";
            string Node(string name) => Name(network.InnerNode(Device, name));
            for (var j = 0; j < windings.Length && domain == Domain.Ac; j++)
            {
                text.Append(CultureInfo.InvariantCulture, $"Gq{tag}{j} 0 q{tag}{j} {Node(windings[j].From)} {Node(windings[j].To)} 1\n");
                text.Append(CultureInfo.InvariantCulture, $"Lq{tag}{j} q{tag}{j} 0 {1 / network.Omega:R}\n");
            }

            for (var i = 0; i < windings.Length; i++)
            {
                for (var j = 0; j < windings.Length; j++)
                {
                    var y = admittance[i * windings.Length + j];
                    text.Append(
                        CultureInfo.InvariantCulture,
                        $"Gr{tag}{i}{j} {Node(windings[i].From)} {Node(windings[i].To)} {Node(windings[j].From)} "
                            + $"{Node(windings[j].To)} {y.Real:R}\n"
                    );
                    if (domain == Domain.Ac)
                    {
                        text.Append(
                            CultureInfo.InvariantCulture,
                            $"Gi{tag}{i}{j} {Node(windings[i].From)} {Node(windings[i].To)} q{tag}{j} 0 {y.Imaginary:R}\n"
                        );
                    }
                }
            }
        }

        public override void Source(int element, Complex volts, Complex ohms)
        {
            var branch = network.Branches[network.BranchIndex(Device, element)];
            if (domain == Domain.Ohms || branch.Open || volts == Complex.Zero)
            {
                return;
            }

            if (domain == Domain.Dc)
            {
                text.Append(CultureInfo.InvariantCulture, $"Vd{Device}_{element} d{Device}_{element} {Name(branch.A)} dc {volts.Real:R}\n");
                text.Append(
                    CultureInfo.InvariantCulture,
                    $"Rd{Device}_{element} d{Device}_{element} {Name(branch.B)} {ohms.Real + branch.SeriesOhms:R}\n"
                );
                return;
            }

            var id = $"s{Device}_{element}";
            var z = ohms + branch.SeriesOhms;
            text.Append(
                CultureInfo.InvariantCulture,
                $"V{id} e{id} {Name(branch.A)} dc 0 ac {volts.Magnitude:R} {volts.Phase * 180 / Math.PI:R}\n"
            );
            text.Append(CultureInfo.InvariantCulture, $"R{id} e{id} y{id} {z.Real:R}\n");
            text.Append(CultureInfo.InvariantCulture, $"L{id} y{id} {Name(branch.B)} {z.Imaginary / network.Omega:R}\n");
        }
    }
}
