namespace Rendal.Cli;

/// <summary>Why a command cannot be carried out: one line that says what, where and what to do.</summary>
internal sealed class Refusal(string message, Exception? inner = null) : Exception(message, inner);
