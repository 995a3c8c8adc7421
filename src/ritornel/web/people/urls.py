from django.contrib.auth.views import LoginView, LogoutView
from django.urls import path

from ritornel.web.people import arriving, commenting, inviting, post

urlpatterns = [
    path("sign-in/", LoginView.as_view(template_name="people/sign_in.html", redirect_authenticated_user=True), name="sign-in"),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
    path("invited/<str:code>/", arriving.invitation, name="invitation"),
    path("post/", post.post, name="post"),
    path("shows/<str:show_id>/people", inviting.people, name="people"),
    path("shows/<str:show_id>/people/invite", inviting.invite, name="invite"),
    path("shows/<str:show_id>/people/<int:number>/withdraw", inviting.withdraw, name="withdraw"),
    path("shows/<str:show_id>/people/<int:number>/restore", inviting.restore, name="restore-invitation"),
    path("shows/<str:show_id>/people/<int:number>/change", inviting.change, name="change-role"),
    path("shows/<str:show_id>/comments", commenting.comments, name="comments"),
    path("shows/<str:show_id>/comments.json", commenting.state, name="comments-state"),
    path("shows/<str:show_id>/comments/say", commenting.say, name="say"),
    path("shows/<str:show_id>/comments/<int:number>/close", commenting.close, name="close-comment"),
]
