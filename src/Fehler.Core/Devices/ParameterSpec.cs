using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A parameter that a device kind understands.</summary>
/// <param name="Name">Name in the circuit file.</param>
/// <param name="Description">What it is, in the words of the nameplate or data sheet.</param>
/// <param name="Unit">Unit of a number; empty for words.</param>
/// <param name="Default">Value when the description says nothing.</param>
/// <param name="Minimum">Least number that makes sense.</param>
/// <param name="Maximum">Greatest number that makes sense.</param>
/// <param name="Choices">Words that are allowed; empty when any is.</param>
public sealed record ParameterSpec(
    string Name, string Description, string Unit, ParameterValue? Default, double Minimum, double Maximum, params string[] Choices)
{
    public static ParameterSpec Number(string name, string description, string unit, double @default, double minimum, double maximum) =>
        new(name, description, unit, @default, minimum, maximum);

    public static ParameterSpec Word(string name, string description, string @default, params string[] choices) =>
        new(name, description, "", @default, 0, 0, choices);

    public static ParameterSpec Words(string name, string description, params string[] @default) =>
        new(name, description, "", ParameterValue.FromWords(@default), 0, 0);
}
