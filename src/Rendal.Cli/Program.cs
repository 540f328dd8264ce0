using Rendal.Cli;

return args switch
{
    ["statements", .. var rest] => StatementsCommand.Run(rest, Console.Out, Console.Error, DateOnly.FromDateTime(DateTime.Now)),
    _ => Refuse(),
};

static int Refuse()
{
    Console.Error.WriteLine("rendal: the command is “statements”; ./rendal --help lists the others.");
    return 2;
}
