namespace Fehler.Data;

/// <summary>On what the entries of one request are made: a device or a program; empty where nobody signed in.</summary>
public sealed class Maker
{
    public string Device { get; set; } = "";
}
