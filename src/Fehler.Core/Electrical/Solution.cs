using System.Numerics;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>A solved state: every voltage and current, and which points hold each other.</summary>
public sealed class Solution
{
    /// <summary>
    /// A branch of more than this is no hold against a meter of 10 Mohm: what lies behind it is stray, ohm.
    /// </summary>
    private const double HoldsBelowOhms = 400e3;

    private readonly Solved<Complex> _ac;
    private readonly Solved<double>? _dc;
    private bool? _isWithoutDirect;
    private int[]? _islands;
    private int[]? _directIslands;
    private DeviceMeter?[]? _meters;

    internal Solution(Network network, CircuitState state, Solved<Complex> ac, Solved<double>? dc)
    {
        Network = network;
        State = state;
        _ac = ac;
        _dc = dc;
    }

    public Network Network { get; }
    public CircuitState State { get; }

    /// <summary>Voltage of a terminal to earth, V phasor.</summary>
    public Complex Volts(TerminalId terminal) => NodeVolts(Network.Node(terminal));

    /// <summary>Voltage from one terminal to another, V phasor.</summary>
    public Complex Volts(TerminalId from, TerminalId to) => Volts(from) - Volts(to);

    /// <summary>Direct voltage from one terminal to another, V; 0 in a circuit without direct supply.</summary>
    public Volts DcVolts(TerminalId from, TerminalId to) => new(DirectVolts(Network.Node(from)) - DirectVolts(Network.Node(to)));

    internal double DirectVolts(int node) => _dc is null || node < 0 ? 0 : _dc.Volts[node];

    internal double BranchDirectAmps(int index)
    {
        if (_dc is null)
        {
            return 0;
        }

        var branch = Network.Branches[index];
        return (DirectVolts(branch.A) - DirectVolts(branch.B) + _dc.ElectromotiveOf(index)) * _dc.AdmittanceOf(index);
    }

    internal Complex NodeVolts(int node) => node < 0 ? Complex.Zero : _ac.Volts[node];

    /// <summary>Current through an element, A to B, A phasor.</summary>
    public Complex Amps(string device, string element)
    {
        var index = Network.DeviceIndex(device);
        var elements = Network.Elements[index];
        for (var i = 0; i < elements.Length; i++)
        {
            if (elements[i].Name == element)
            {
                return BranchAmps(Network.BranchIndex(index, i));
            }
        }

        throw new KeyNotFoundException($"{device} has no element {element}.");
    }

    /// <summary>
    /// Current into a device at one of its terminals: what a clamp around everything landed there shows. Direct current counts too.
    /// </summary>
    public Amps Amps(TerminalId terminal)
    {
        var node = Network.Node(terminal);
        var device = Network.DeviceIndex(terminal.Device);
        var (ac, dc) = (Complex.Zero, 0.0);
        for (var i = 0; i < Network.Elements[device].Length; i++)
        {
            var index = Network.BranchIndex(device, i);
            var branch = Network.Branches[index];
            var sign =
                branch.A == node ? 1
                : branch.B == node ? -1
                : 0;
            ac += sign * BranchAmps(index);
            dc += sign * BranchDirectAmps(index);
        }

        return new(Math.Sqrt(ac.Magnitude * ac.Magnitude + dc * dc));
    }

    internal Complex BranchAmps(int index)
    {
        var branch = Network.Branches[index];
        var drop = NodeVolts(branch.A) - NodeVolts(branch.B);
        return (drop + _ac.ElectromotiveOf(index)) * _ac.AdmittanceOf(index);
    }

    /// <summary>
    /// Whether a meter between the two points reads a voltage that is held there rather than one that leaks in over
    /// capacitance, that between the cores of a cable too: true when conducting branches join them.
    /// </summary>
    public bool IsFirm(TerminalId from, TerminalId to)
    {
        _islands ??= Islands(i => _ac.AdmittanceOf(i).Magnitude);
        var (a, b) = (Network.Node(from), Network.Node(to));
        return _islands[a + 1] == _islands[b + 1];
    }

    /// <summary>Below this no source gives a direct voltage, V.</summary>
    private const double LeastDirectVolts = 0.05;

    /// <summary>
    /// The same for a direct voltage. Where no source gives any, there is none to leak in from anywhere: capacitance passes no direct current.
    /// </summary>
    public bool IsFirmDirect(TerminalId from, TerminalId to)
    {
        if (_dc is null || (_isWithoutDirect ??= _dc.Volts.All(v => Math.Abs(v) < LeastDirectVolts)))
        {
            return true;
        }

        _directIslands ??= Islands(i => _dc.AdmittanceOf(i));
        return _directIslands[Network.Node(from) + 1] == _directIslands[Network.Node(to) + 1];
    }

    /// <summary>About how much memory it holds.</summary>
    internal long Bytes => _ac.Bytes + (_dc?.Bytes ?? 0);

    /// <summary>What a device feels; the same at every asking, so that what it works out is worked out once.</summary>
    internal IDeviceMeter MeterOf(int device) =>
        (_meters ??= new DeviceMeter?[Network.Circuit.Devices.Length])[device] ??= new(this, device);

    /// <summary>Island of every node; index 0 is earth.</summary>
    private int[] Islands(Func<int, double> siemens)
    {
        var islands = new UnionFind(Network.Size + 1);
        for (var i = 0; i < Network.Branches.Length; i++)
        {
            if (siemens(i) > 1 / HoldsBelowOhms && Network.Branches[i].Farads == 0)
            {
                islands.Join(Network.Branches[i].A + 1, Network.Branches[i].B + 1);
            }
        }

        foreach (var (a, b) in Network.WindingEnds)
        {
            islands.Join(a + 1, b + 1);
        }

        return islands.Roots();
    }

    private sealed class DeviceMeter(Solution solution, int device) : IDeviceMeter
    {
        private WindingEquivalent? _windings;

        public Complex Volts(int element)
        {
            var branch = solution.Network.Branches[solution.Network.BranchIndex(device, element)];
            return solution.NodeVolts(branch.A) - solution.NodeVolts(branch.B);
        }

        public Complex Amps(int element) => solution.BranchAmps(solution.Network.BranchIndex(device, element));

        public Complex Volts(string from, string to) =>
            solution.NodeVolts(solution.Network.InnerNode(device, from)) - solution.NodeVolts(solution.Network.InnerNode(device, to));

        public double DcVolts(int element)
        {
            var branch = solution.Network.Branches[solution.Network.BranchIndex(device, element)];
            return solution.DirectVolts(branch.A) - solution.DirectVolts(branch.B);
        }

        public double DcAmps(int element) => solution.BranchDirectAmps(solution.Network.BranchIndex(device, element));

        public DeviceState? StateOf(string tag) =>
            solution.Network.Circuit.FindDevice(tag) is null ? null : solution.State.Devices[solution.Network.DeviceIndex(tag)];

        public IDeviceMeter With(DeviceState state)
        {
            var tried = solution.Network.Circuit.Devices[device];
            if (!tried.Kind.IsSlow)
            {
                return solution.Network.Solve(solution.State.With(device, state)).MeterOf(device);
            }

            _windings ??= new WindingEquivalent(solution, device);
            return new TriedSpeed(solution, device, state, _windings.Volts(tried, state));
        }
    }
}

/// <summary>A rotor at a speed that it tries: its windings' voltages are known at once, anything else solves the circuit.</summary>
internal sealed class TriedSpeed(Solution solution, int device, DeviceState state, WindingVolts windings) : IDeviceMeter
{
    private IDeviceMeter? _solved;

    private IDeviceMeter Solved => _solved ??= solution.Network.Solve(solution.State.With(device, state)).MeterOf(device);

    public Complex Volts(int element) => Solved.Volts(element);

    public Complex Amps(int element) => Solved.Amps(element);

    public double DcVolts(int element) => Solved.DcVolts(element);

    public double DcAmps(int element) => Solved.DcAmps(element);

    public DeviceState? StateOf(string tag) => solution.MeterOf(device).StateOf(tag);

    public Complex Volts(string from, string to) => windings.Of(from, to) ?? Solved.Volts(from, to);

    public IDeviceMeter With(DeviceState other) => Solved.With(other);
}
