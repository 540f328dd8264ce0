WebApplication.CreateBuilder(args).Build().Run();
