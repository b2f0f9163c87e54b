using System.Diagnostics;
using System.Globalization;
using System.Numerics;
using System.Text.RegularExpressions;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests;

/// <summary>Runs ngspice (a general-purpose circuit simulator) on a netlist: the reference that the physics is checked against.</summary>
internal static partial class Ngspice
{
    /// <summary>Node voltages of the AC analysis, V phasor, by node name.</summary>
    public static Dictionary<string, Complex> Ac(string netlist)
    {
        var voltages = new Dictionary<string, Complex>();
        var output = Run(
            netlist.Replace(".print ac all", ".control\nrun\nset numdgt=10\nset width=200\nprint all\n.endc", StringComparison.Ordinal)
        );
        foreach (Match match in ComplexValue().Matches(output))
        {
            voltages[match.Groups[1].Value] = new Complex(Number(match.Groups[2].Value), Number(match.Groups[3].Value));
        }

        return voltages;
    }

    /// <summary>Node voltages of the operating point, V, by node name.</summary>
    public static Dictionary<string, double> Op(string netlist)
    {
        var output = Run(netlist.Replace(".op\n.end", ".control\nop\nset numdgt=10\nprint all\n.endc\n.end", StringComparison.Ordinal));
        return RealValue().Matches(output).ToDictionary(m => m.Groups[1].Value, m => Number(m.Groups[2].Value));
    }

    private static string Run(string netlist)
    {
        var file = Path.GetTempFileName();
        File.WriteAllText(file, netlist);
        try
        {
            using var process = Process.Start(
                new ProcessStartInfo("ngspice", ["-b", file]) { RedirectStandardOutput = true, RedirectStandardError = true }
            )!;
            var errors = process.StandardError.ReadToEndAsync();
            var output = process.StandardOutput.ReadToEnd();
            process.WaitForExit();
            return output + errors.Result;
        }
        finally
        {
            File.Delete(file);
        }
    }

    private static double Number(string text) => double.Parse(text, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^(n\d+) = (-?[\d.]+e[+-]\d+),(-?[\d.]+e[+-]\d+)", RegexOptions.Multiline | RegexOptions.IgnoreCase)]
    private static partial Regex ComplexValue();

    [GeneratedRegex(@"^(n\d+) = (-?[\d.]+e[+-]\d+)\s*$", RegexOptions.Multiline | RegexOptions.IgnoreCase)]
    private static partial Regex RealValue();
}
