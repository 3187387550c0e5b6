from kelbrast.cli.main import main

main()
