"""Between the network and the application: sockets, deadlines, and the processes that answer.

`received` judges a request as it comes in, `connection` holds one client, `server` looks after all
of a process, `processes` keeps several processes going on one listening socket, and `board` is the
memory that they share. The HTTP itself is waitress's: it takes a whole request in before a thread
is given to it, so that who sends slowly, or nothing, holds no thread.
"""
